package org.calmpalette.app.web;

import jakarta.servlet.RequestDispatcher;
import jakarta.servlet.http.HttpServletRequest;
import org.calmpalette.core.language.Language;
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
            case 404, 405 -> tell(model, Language.say("problem.nothing"), Language.say("problem.nothing.mend"));
            case 403 -> tell(model, Language.say("problem.not-yours"), Language.say("problem.not-yours.mend"));
            case 400 -> tell(model, Language.say("problem.request"), Language.say("problem.request.mend"));
            case 413 -> tell(model, Language.say("problem.sent-large"), Language.say("problem.sent-large.mend"));
            default ->
                tell(
                        model,
                        Language.say("problem.ours"),
                        Language.say("problem.ours.mend", request.getAttribute(RequestIdFilter.ATTRIBUTE)));
        }
        model.addAttribute("back", "/");
        return "problem";
    }

    private static void tell(Model model, String message, String mend) {
        model.addAttribute("message", message);
        model.addAttribute("mend", mend);
    }
}
