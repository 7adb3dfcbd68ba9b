package org.calmpalette.app.web;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpSession;
import org.springframework.stereotype.Component;

/** One sentence for the next page: what was done. Who has no session gets none by looking for one. */
@Component("notices")
public class Notices {
    private static final String KEY = "notice";
    private final HttpServletRequest request;

    Notices(HttpServletRequest request) {
        this.request = request;
    }

    public void done(String sentence) {
        request.getSession().setAttribute(KEY, sentence);
    }

    /** The sentence, once; null if there is none. */
    public String take() {
        HttpSession session = request.getSession(false);
        Object sentence = session == null ? null : session.getAttribute(KEY);
        if (sentence != null) {
            session.removeAttribute(KEY);
        }
        return (String) sentence;
    }
}
