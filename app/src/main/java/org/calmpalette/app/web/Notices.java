package org.calmpalette.app.web;

import jakarta.servlet.http.HttpSession;
import org.springframework.stereotype.Component;

/** One sentence for the next page: what was done. */
@Component("notices")
public class Notices {
  private static final String KEY = "notice";
  private final HttpSession session;

  Notices(HttpSession session) {
    this.session = session;
  }

  public void done(String sentence) {
    session.setAttribute(KEY, sentence);
  }

  /** The sentence, once; null if there is none. */
  public String take() {
    Object sentence = session.getAttribute(KEY);
    if (sentence != null) {
      session.removeAttribute(KEY);
    }
    return (String) sentence;
  }
}
