package org.calmpalette.app.web;

import jakarta.servlet.RequestDispatcher;
import jakarta.servlet.http.HttpServletRequest;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.webmvc.error.ErrorController;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.RequestMapping;

/** Pages for what goes wrong outside of controllers. Never a trace. */
@Controller
class OwnErrorController implements ErrorController {
    private static final Logger LOG = LoggerFactory.getLogger(OwnErrorController.class);

    @RequestMapping("/error")
    String error(HttpServletRequest request, Model model) {
        Object status = request.getAttribute(RequestDispatcher.ERROR_STATUS_CODE);
        int code = status instanceof Integer i ? i : 404;
        if (code >= 500) {
            LOG.error(
                    "{} {}: {}",
                    request.getMethod(),
                    RequestPath.told(String.valueOf(request.getAttribute(RequestDispatcher.ERROR_REQUEST_URI))),
                    code,
                    (Throwable) request.getAttribute(RequestDispatcher.ERROR_EXCEPTION));
        }
        switch (code) {
            case 404, 405 ->
                tell(
                        model,
                        "There is nothing at this address.",
                        "It may have been removed, or it belongs to somebody else.");
            case 403 ->
                tell(
                        model,
                        "This is not yours to change, or the page was open for too long.",
                        "Go back, open the page again and try once more.");
            case 400 -> tell(model, "The request could not be understood.", "Go back and try once more.");
            case 413 -> tell(model, "What was sent is too large.", "The most is 100 MB.");
            default ->
                tell(
                        model,
                        "Something went wrong on our side.",
                        "Nothing was changed. Try again; if it stays so, the reason stands in the log of the application, under "
                                + request.getAttribute(RequestIdFilter.ATTRIBUTE) + ".");
        }
        model.addAttribute("back", "/");
        return "problem";
    }

    private static void tell(Model model, String message, String mend) {
        model.addAttribute("message", message);
        model.addAttribute("mend", mend);
    }
}
