package org.calmpalette.app;

import org.springframework.boot.context.properties.ConfigurationProperties;

/**
 * What is decided at start.
 *
 * @param demo whether the demo data are loaded and its two people may sign in
 * @param demoPassword their password, made anew for each installation
 * @param setupCode what the first maker has to enter where there is no account yet
 */
@ConfigurationProperties("calm")
public record CalmProperties(boolean demo, String demoPassword, String setupCode) {}
