package org.calmpalette.app.web;

import static org.assertj.core.api.Assertions.assertThat;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServlet;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import org.calmpalette.core.Budget;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.springframework.boot.tomcat.servlet.TomcatServletWebServerFactory;
import org.springframework.boot.web.server.WebServer;

/** A long question ends once nobody waits for its answer; what changes something is done all the same. */
class ClientGoneTest {
    private final BlockingQueue<String> told = new LinkedBlockingQueue<>();
    private final BudgetFilter filter = new BudgetFilter(new Courtesy(), Duration.ofMillis(600));
    private final WebServer server = server();

    private WebServer server() {
        TomcatServletWebServerFactory factory = new TomcatServletWebServerFactory(0);
        new ClientGone().customize(factory);
        WebServer made = factory.getWebServer(context -> {
            context.addServlet("long", new HttpServlet() {
                        @Override
                        protected void service(HttpServletRequest request, HttpServletResponse response)
                                throws ServletException, IOException {
                            filter.doFilter(request, response, work());
                            told.add(request.getMethod() + " answered " + response.getStatus());
                        }
                    })
                    .addMapping("/");
        });
        made.start();
        return made;
    }

    /** Takes more than a question may, unless it is ended before. */
    private FilterChain work() {
        return (request, response) -> {
            told.add("begun");
            try {
                while (true) {
                    Budget.longStep();
                }
            } catch (RuntimeException ended) {
                told.add(ended.getClass().getSimpleName());
                throw new ServletException(ended);
            }
        };
    }

    @AfterEach
    void stop() {
        server.stop();
    }

    private Socket asked(String method) throws Exception {
        Socket socket = new Socket("127.0.0.1", server.getPort());
        socket.getOutputStream()
                .write((method + " / HTTP/1.1\r\nHost: x\r\nContent-Length: 0\r\n\r\n")
                        .getBytes(StandardCharsets.US_ASCII));
        assertThat(told.poll(1, TimeUnit.MINUTES)).isEqualTo("begun");
        return socket;
    }

    @Test
    void aLongQuestionEndsWithItsClient() throws Exception {
        asked("GET").close();
        assertThat(told.poll(1, TimeUnit.MINUTES)).isEqualTo("CancellationException");
        assertThat(told.poll(1, TimeUnit.MINUTES)).as("and is no fault").isEqualTo("GET answered 200");
    }

    /** Also who has asked the next thing already. */
    @Test
    void whoWaitsIsTold() throws Exception {
        try (Socket waiting = asked("GET")) {
            waiting.getOutputStream()
                    .write("GET /next HTTP/1.1\r\nHost: x\r\n\r\n".getBytes(StandardCharsets.US_ASCII));
            assertThat(told.poll(1, TimeUnit.MINUTES)).isEqualTo("BeyondLimitException");
            assertThat(new String(waiting.getInputStream().readNBytes(12), StandardCharsets.US_ASCII))
                    .isEqualTo("HTTP/1.1 500");
        }
    }

    @Test
    void whatChangesSomethingIsDoneThoughNobodyWaits() throws Exception {
        asked("POST").close();
        assertThat(told.poll(1, TimeUnit.MINUTES)).isEqualTo("BeyondLimitException");
    }
}
