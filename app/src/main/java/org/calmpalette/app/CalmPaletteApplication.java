package org.calmpalette.app;

import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.boot.context.properties.ConfigurationPropertiesScan;
import org.springframework.scheduling.annotation.EnableScheduling;

/** Starts the web application. */
@SpringBootApplication
@ConfigurationPropertiesScan
@EnableScheduling
public class CalmPaletteApplication {
    public static void main(String[] arguments) {
        SpringApplication.run(CalmPaletteApplication.class, arguments);
    }
}
