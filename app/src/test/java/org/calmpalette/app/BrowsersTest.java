package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.util.concurrent.CompletableFuture;
import org.junit.jupiter.api.RepeatedTest;

/** Tests go on when the browser does not, whatever was being asked of it. */
class BrowsersTest {
    @RepeatedTest(3)
    void aBrowserThatWasEndedIsFollowedByAnother() {
        Page lost = Browsers.page(400, 300);
        lost.setContent("<p>here");
        CompletableFuture<Void> end = CompletableFuture.runAsync(Browsers::end);
        Browsers.closeAll();
        end.join();
        Page next = Browsers.page(400, 300);
        next.setContent("<p>here again");
        assertThat(next.textContent("p")).isEqualTo("here again");
    }
}
