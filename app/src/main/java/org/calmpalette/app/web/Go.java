package org.calmpalette.app.web;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import org.springframework.web.context.request.RequestContextHolder;
import org.springframework.web.context.request.ServletRequestAttributes;

/** Sends the browser to another page after a change, whether htmx asked or a plain form. */
public final class Go {
    private Go() {}

    /** The view to return from a controller. */
    public static String to(String address) {
        ServletRequestAttributes now = (ServletRequestAttributes) RequestContextHolder.currentRequestAttributes();
        HttpServletRequest request = now.getRequest();
        HttpServletResponse response = now.getResponse();
        if (request.getHeader("HX-Request") == null || response == null) {
            return "redirect:" + address;
        }
        response.setHeader("HX-Redirect", address);
        return "fragments :: nothing";
    }
}
