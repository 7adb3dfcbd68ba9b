package org.calmpalette.app.web;

import jakarta.servlet.ServletException;
import jakarta.servlet.ServletRequest;
import java.io.IOException;
import java.util.function.BooleanSupplier;
import org.apache.catalina.connector.Request;
import org.apache.catalina.connector.Response;
import org.apache.catalina.valves.ValveBase;
import org.apache.coyote.ActionCode;
import org.springframework.boot.tomcat.ConfigurableTomcatWebServerFactory;
import org.springframework.boot.web.server.WebServerFactoryCustomizer;
import org.springframework.stereotype.Component;

/**
 * Tells whether who asked still waits for the answer. The standard for servlets has no question for it; Tomcat notices when it reads from
 * the connection without waiting. A client that closes its half of the connection once it has asked counts as gone, as is common practice
 * of servers.
 */
@Component
class ClientGone extends ValveBase implements WebServerFactoryCustomizer<ConfigurableTomcatWebServerFactory> {
    private static final String GONE = ClientGone.class.getName();

    ClientGone() {
        super(true);
    }

    @Override
    public void customize(ConfigurableTomcatWebServerFactory server) {
        server.addEngineValves(this);
    }

    @Override
    public void invoke(Request request, Response response) throws IOException, ServletException {
        request.setAttribute(GONE, (BooleanSupplier) () -> isGone(request.getCoyoteRequest()));
        getNext().invoke(request, response);
    }

    /** Where reading fails, Tomcat says each time that one byte is there to be read. Of a request that was sent ahead there are more. */
    private static boolean isGone(org.apache.coyote.Request connection) {
        return hasOneByte(connection) && hasOneByte(connection);
    }

    private static boolean hasOneByte(org.apache.coyote.Request connection) {
        connection.action(ActionCode.AVAILABLE, Boolean.TRUE);
        return connection.getAvailable() == 1;
    }

    /** A question for the thread that answers the request; it costs a look at the connection. Where nobody can tell, the client is there. */
    static BooleanSupplier of(ServletRequest request) {
        return request.getAttribute(GONE) instanceof BooleanSupplier gone ? gone : () -> false;
    }
}
