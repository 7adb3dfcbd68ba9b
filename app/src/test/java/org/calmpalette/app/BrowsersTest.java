package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import org.junit.jupiter.api.Test;

/** Tests go on when the browser does not. */
class BrowsersTest {
    @Test
    void aBrowserThatWasEndedIsFollowedByAnother() {
        Page lost = Browsers.page(400, 300);
        lost.setContent("<p>here");
        Browsers.end();
        Browsers.closeAll();
        Page next = Browsers.page(400, 300);
        next.setContent("<p>here again");
        assertThat(next.textContent("p")).isEqualTo("here again");
        assertThat(lost.isClosed()).isTrue();
    }
}
