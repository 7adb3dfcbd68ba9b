package org.calmpalette.core.theme;

import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import javax.imageio.ImageIO;

/** A page with one line of text on a section, its boxes as a browser would measure them, and a picture that is dark at the left and light at the right. */
public final class HalfLight {
    public static final String PAGE =
            "<!doctype html><html><head><link rel=stylesheet href=a.css></head><body><section class=hero><p>Cross by dusk</p></section></body></html>";
    // html 1, head 2, link 3, body 4, section 5, p 6
    public static final String MEASURES =
            """
      {"format":"calm-measures/1","page":"index.html","windowHeight":800,"from":320,"to":2560,"unsure":[],"height":[[320,400]],
       "boxes":{"1":[[320,0,0,320,400],[2560,0,0,2560,400]],"4":[[320,0,0,320,400],[2560,0,0,2560,400]],
                "5":[[320,0,0,320,300],[2560,0,0,2560,300]],"6":[[320,20,40,200,20]]},
       "lines":{"6":[[320,20,40,200,20]]}}""";

    public static byte[] picture() throws IOException {
        BufferedImage image = new BufferedImage(400, 300, BufferedImage.TYPE_INT_RGB);
        Graphics2D g = image.createGraphics();
        g.setColor(new Color(0x202020));
        g.fillRect(0, 0, 200, 300);
        g.setColor(new Color(0xf0f0f0));
        g.fillRect(200, 0, 200, 300);
        g.dispose();
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, "png", out);
        return out.toByteArray();
    }

    private HalfLight() {}
}
