package org.calmpalette.app.sites;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Base64;
import java.util.Random;
import org.calmpalette.app.Scan;
import org.junit.jupiter.api.Test;

/** Every code that is handed out is read, whatever its address happens to look like. */
class DraftCodeTest {
    @Test
    void everyCodeIsRead() {
        Random random = new Random(5);
        for (int i = 0; i < 400; i++) {
            byte[] token = new byte[16];
            random.nextBytes(token);
            String address = "http://localhost:41387/frame/h" + random.nextInt(200) + "/"
                    + Base64.getUrlEncoder().withoutPadding().encodeToString(token) + "/index.html";
            DraftLinks.Code code = DraftLinks.Code.of(address);
            assertThat(Scan.of("viewBox=\"0 0 " + code.side() + " " + code.path()))
                    .isEqualTo(address);
        }
    }
}
