package org.calmpalette.app.web;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import org.calmpalette.core.BadInputException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpStatus;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.multipart.MaxUploadSizeExceededException;

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
    return tell(HttpStatus.CONFLICT, e.getMessage(),
        "Yours was not made, so that nobody's work is lost; what you entered is still here.", request, response, model);
  }

  @ExceptionHandler(MaxUploadSizeExceededException.class)
  String tooLarge(HttpServletRequest request, HttpServletResponse response, Model model) {
    return tell(HttpStatus.CONTENT_TOO_LARGE, "The file is larger than 100 MB.",
        "Leave out what the site does not show, such as pictures in print resolution.", request, response, model);
  }

  private String tell(HttpStatus status, String message, String mend, HttpServletRequest request,
      HttpServletResponse response, Model model) {
    LOG.info("{} {}: {} {}", request.getMethod(), request.getRequestURI(), status.value(), message);
    response.setStatus(status.value());
    model.addAttribute("message", message);
    model.addAttribute("mend", mend);
    if (request.getHeader("HX-Request") != null) {
      response.setHeader("HX-Retarget", "#notice");
      response.setHeader("HX-Reswap", "innerHTML");
      return "fragments :: problem";
    }
    String back = request.getHeader("Referer");
    model.addAttribute("back", back != null && back.startsWith(origin(request)) ? back.substring(origin(request).length()) : "/");
    return "problem";
  }

  private static String origin(HttpServletRequest request) {
    String url = request.getRequestURL().toString();
    return url.substring(0, url.length() - request.getRequestURI().length());
  }
}
