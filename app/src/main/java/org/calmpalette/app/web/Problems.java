package org.calmpalette.app.web;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.language.Language;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.slf4j.event.Level;
import org.springframework.dao.ConcurrencyFailureException;
import org.springframework.dao.DataAccessException;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.http.HttpStatus;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.multipart.MaxUploadSizeExceededException;
import org.springframework.web.multipart.MultipartException;
import org.springframework.web.multipart.support.MissingServletRequestPartException;

/** Tells troubles in plain words: into the notice of the page where htmx asked, on a page of its own otherwise. */
@ControllerAdvice
class Problems {
    private static final Logger LOG = LoggerFactory.getLogger(Problems.class);

    @ExceptionHandler(BadInputException.class)
    String badInput(BadInputException e, HttpServletRequest request, HttpServletResponse response, Model model) {
        return tell(HttpStatus.UNPROCESSABLE_CONTENT, e.getMessage(), e.mend(), request, response, model);
    }

    @ExceptionHandler(StaleException.class)
    String stale(StaleException e, HttpServletRequest request, HttpServletResponse response, Model model) {
        model.addAttribute("rebase", e.head());
        return tell(HttpStatus.CONFLICT, e.getMessage(), Language.say("problem.stale.mend"), request, response, model);
    }

    @ExceptionHandler(MaxUploadSizeExceededException.class)
    String tooLarge(HttpServletRequest request, HttpServletResponse response, Model model) {
        return tell(
                HttpStatus.CONTENT_TOO_LARGE,
                Language.say("problem.large"),
                Language.say("problem.large.mend"),
                request,
                response,
                model);
    }

    @ExceptionHandler({MultipartException.class, MissingServletRequestPartException.class})
    String noFile(HttpServletRequest request, HttpServletResponse response, Model model) {
        return tell(
                HttpStatus.BAD_REQUEST,
                Language.say("problem.no-file"),
                Language.say("problem.no-file.mend"),
                request,
                response,
                model);
    }

    @ExceptionHandler(TooManyException.class)
    String tooMany(TooManyException e, HttpServletRequest request, HttpServletResponse response, Model model) {
        response.setHeader("Retry-After", String.valueOf(e.seconds()));
        return tell(
                HttpStatus.TOO_MANY_REQUESTS,
                e.getMessage(),
                Language.say("problem.wait", e.seconds()),
                request,
                response,
                model);
    }

    /** Deadlocks that stay after several tries, and what two people did at the same moment. */
    @ExceptionHandler({ConcurrencyFailureException.class, DataIntegrityViolationException.class})
    String second(DataAccessException e, HttpServletRequest request, HttpServletResponse response, Model model) {
        LOG.warn("{} {} came second", request.getMethod(), RequestPath.told(request), e);
        return tell(
                HttpStatus.CONFLICT,
                Language.say("problem.second"),
                Language.say("problem.second.mend"),
                request,
                response,
                model);
    }

    private String tell(
            HttpStatus status,
            String message,
            String mend,
            HttpServletRequest request,
            HttpServletResponse response,
            Model model) {
        // Who asks faster than is answered must not be able to fill the log as well.
        LOG.atLevel(status == HttpStatus.TOO_MANY_REQUESTS ? Level.DEBUG : Level.INFO)
                .log("{} {}: {} {}", request.getMethod(), RequestPath.told(request), status.value(), message);
        response.setStatus(status.value());
        model.addAttribute("message", message);
        model.addAttribute("mend", mend);
        if (request.getHeader("HX-Request") != null) {
            response.setHeader("HX-Retarget", "#notice");
            response.setHeader("HX-Reswap", "innerHTML");
            return "fragments :: problem";
        }
        model.addAttribute("back", RequestPath.from(request));
        return "problem";
    }
}
