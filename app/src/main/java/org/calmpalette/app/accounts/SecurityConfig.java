package org.calmpalette.app.accounts;

import jakarta.servlet.http.HttpServletRequest;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpMethod;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.http.SessionCreationPolicy;
import org.springframework.security.crypto.factory.PasswordEncoderFactories;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.csrf.CookieCsrfTokenRepository;
import org.springframework.security.web.firewall.FirewalledRequest;
import org.springframework.security.web.firewall.HttpFirewall;
import org.springframework.security.web.firewall.StrictHttpFirewall;
import org.springframework.security.web.header.writers.ReferrerPolicyHeaderWriter;
import org.springframework.security.web.savedrequest.CookieRequestCache;
import org.springframework.session.jdbc.MySqlJdbcIndexedSessionRepositoryCustomizer;

/** Who may ask for what. Controllers and services check further that a thing belongs to the person. */
@Configuration
class SecurityConfig {
    /** Our own pages: nothing from elsewhere, frames only of our own addresses, no inline script or style. */
    private static final String OWN_PAGES =
            "default-src 'self'; script-src 'self'; style-src 'self'; img-src 'self' data:; "
                    + "font-src 'self'; connect-src 'self'; frame-src 'self'; object-src 'none'; base-uri 'none'; "
                    + "form-action 'self'; frame-ancestors 'none'";

    @Bean
    PasswordEncoder passwordEncoder() {
        return PasswordEncoderFactories.createDelegatingPasswordEncoder();
    }

    /** Two requests of one session may both keep something in it: the later one wins, and neither fails. */
    @Bean
    MySqlJdbcIndexedSessionRepositoryCustomizer sessionAttributes() {
        return new MySqlJdbcIndexedSessionRepositoryCustomizer();
    }

    /** Files of a theme may have any name, so the addresses of previews may hold what our own never do. */
    @Bean
    HttpFirewall firewall() {
        StrictHttpFirewall files = new StrictHttpFirewall();
        files.setAllowUrlEncodedPercent(true);
        files.setAllowSemicolon(true);
        return new StrictHttpFirewall() {
            @Override
            public FirewalledRequest getFirewalledRequest(HttpServletRequest request) {
                return request.getRequestURI().startsWith("/frame/")
                        ? files.getFirewalledRequest(request)
                        : super.getFirewalledRequest(request);
            }
        };
    }

    /**
     * Previews and our own static files: no session, no cookie, nothing of a person. What a stranger's page asks for can
     * therefore do nothing in anybody's name. Their controllers set the headers. Live sites are answered before any of this.
     */
    @Bean
    @Order(1)
    SecurityFilterChain open(HttpSecurity http) throws Exception {
        return http.securityMatcher("/frame/**", "/assets/**", "/webjars/**", "/favicon.ico")
                .authorizeHttpRequests(r -> r.requestMatchers(HttpMethod.GET, "/**")
                        .permitAll()
                        .requestMatchers(HttpMethod.HEAD, "/**")
                        .permitAll()
                        .anyRequest()
                        .denyAll())
                .sessionManagement(s -> s.sessionCreationPolicy(SessionCreationPolicy.STATELESS))
                .requestCache(c -> c.disable())
                .securityContext(c -> c.disable())
                .headers(h -> h.frameOptions(f -> f.disable()).cacheControl(c -> c.disable()))
                .csrf(c -> c.disable())
                .build();
    }

    /** A visitor who has not signed in has no session: tokens of forms and where one wanted to go are in cookies. */
    @Bean
    @Order(2)
    SecurityFilterChain own(HttpSecurity http, SignInGate gate) throws Exception {
        CookieCsrfTokenRepository tokens = new CookieCsrfTokenRepository();
        tokens.setCookieName("calm-csrf");
        tokens.setHeaderName("X-CSRF-TOKEN");
        tokens.setCookieCustomizer(c -> c.sameSite("Lax").httpOnly(true));
        return http.authorizeHttpRequests(r -> r.requestMatchers("/join/*/as-me")
                        .authenticated()
                        .requestMatchers(
                                "/",
                                "/sign-in",
                                "/welcome",
                                "/join/**",
                                "/makers/join/**",
                                "/password/**",
                                "/language",
                                "/error",
                                "/actuator/health/**")
                        .permitAll()
                        .requestMatchers("/themes/**", "/makers/**")
                        .hasRole("MAKER")
                        .anyRequest()
                        .authenticated())
                .formLogin(f -> f.loginPage("/sign-in")
                        .loginProcessingUrl("/sign-in")
                        .successHandler(gate.succeeded())
                        .failureHandler(gate.failed())
                        .permitAll())
                .addFilterBefore(
                        gate,
                        org.springframework.security.web.authentication.UsernamePasswordAuthenticationFilter.class)
                .logout(l -> l.logoutUrl("/sign-out").logoutSuccessUrl("/sign-in?left"))
                .csrf(c -> c.csrfTokenRepository(tokens))
                .requestCache(c -> c.requestCache(new CookieRequestCache()))
                .headers(h -> h.contentSecurityPolicy(c -> c.policyDirectives(OWN_PAGES))
                        .referrerPolicy(r -> r.policy(ReferrerPolicyHeaderWriter.ReferrerPolicy.SAME_ORIGIN)))
                .build();
    }
}
