package org.calmpalette.app;

import com.microsoft.playwright.Page;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Base64;
import org.junit.jupiter.api.Test;

/** Draws the video of the shelf, a ferry that goes to and fro in four seconds; run by hand, not with the tests. */
class ShelfFilm {
    private static final Path FILM = Path.of("../core/src/main/resources/org/calmpalette/core/section/film/wake.webm");

    @Test
    void draw() throws IOException {
        Page page = Browsers.page(600, 400);
        String film = (String)
                page.evaluate(
                        """
                async () => {
                  const c = document.createElement('canvas'); c.width = 480; c.height = 270; const g = c.getContext('2d');
                  const fill = (from, to, ...stops) => { const f = g.createLinearGradient(0, from, 0, to); stops.forEach(([at, color]) => f.addColorStop(at, color)); g.fillStyle = f; };
                  const draw = t => {
                    fill(0, 180, [0, '#26384f'], [.8, '#7d8ea0'], [1, '#d9b48a']); g.fillRect(0, 0, 480, 270);
                    g.fillStyle = '#5d7185'; g.beginPath(); g.moveTo(0, 150);
                    for (const [x, y] of [[60, 120], [110, 140], [180, 104], [260, 146], [330, 124], [410, 150], [480, 132], [480, 190], [0, 190]]) g.lineTo(x, y);
                    g.fill();
                    fill(185, 270, [0, '#b79a80'], [1, '#33475a']); g.fillRect(0, 185, 480, 85);
                    g.strokeStyle = 'rgba(255,240,220,.35)'; g.lineWidth = 1.5;
                    for (let i = 0; i < 9; i++) { g.beginPath(); for (let x = 0; x <= 480; x += 8) g.lineTo(x, 196 + i * 8 + 2 * Math.sin(x / 26 + i + 2 * Math.PI * t)); g.stroke(); }
                    const x = 190 + 60 * Math.sin(2 * Math.PI * t), y = 190 + 2 * Math.sin(4 * Math.PI * t);
                    g.fillStyle = '#1f3044'; g.fillRect(x, y, 64, 10); g.fillRect(x + 14, y - 10, 38, 10); g.fillRect(x + 26, y - 18, 10, 8);
                  };
                  const chunks = []; const r = new MediaRecorder(c.captureStream(12), { mimeType: 'video/webm;codecs=vp8', videoBitsPerSecond: 120000 });
                  r.ondataavailable = e => chunks.push(e.data); const done = new Promise(k => { r.onstop = k; }); r.start(); const begun = performance.now();
                  await new Promise(k => { const f = () => { const t = (performance.now() - begun) / 4000; draw(t % 1); t < 1 ? setTimeout(f, 80) : k(); }; f(); });
                  r.stop(); await done;
                  let s = ''; for (const x of new Uint8Array(await new Blob(chunks).arrayBuffer())) s += String.fromCharCode(x);
                  return btoa(s);
                }""");
        Files.write(FILM, Base64.getDecoder().decode(film));
    }
}
