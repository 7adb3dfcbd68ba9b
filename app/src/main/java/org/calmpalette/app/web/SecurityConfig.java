package org.calmpalette.app.web;

import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpMethod;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.http.SessionCreationPolicy;
import org.springframework.security.crypto.factory.PasswordEncoderFactories;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.header.writers.ReferrerPolicyHeaderWriter;

/** Who may ask for what. Controllers and services check further that a thing belongs to the person. */
@Configuration
class SecurityConfig {
  /** Our own pages: nothing from elsewhere, frames only of our own addresses, no inline script or style. */
  private static final String OWN_PAGES = "default-src 'self'; script-src 'self'; style-src 'self'; img-src 'self' data:; "
      + "font-src 'self'; connect-src 'self'; frame-src 'self'; object-src 'none'; base-uri 'none'; "
      + "form-action 'self'; frame-ancestors 'none'";

  @Bean
  PasswordEncoder passwordEncoder() {
    return PasswordEncoderFactories.createDelegatingPasswordEncoder();
  }

  /**
   * Previews, live sites and our own static files: no session, no cookie, nothing of a person. What a stranger's page
   * asks for can therefore do nothing in anybody's name. Their controllers set the headers.
   */
  @Bean
  @Order(1)
  SecurityFilterChain open(HttpSecurity http) throws Exception {
    return http
        .securityMatcher("/frame/**", "/at/**", "/assets/**", "/webjars/**", "/favicon.ico")
        .authorizeHttpRequests(r -> r
            .requestMatchers(HttpMethod.GET, "/**").permitAll()
            .requestMatchers(HttpMethod.HEAD, "/**").permitAll()
            .anyRequest().denyAll())
        .sessionManagement(s -> s.sessionCreationPolicy(SessionCreationPolicy.STATELESS))
        .requestCache(c -> c.disable())
        .securityContext(c -> c.disable())
        .headers(h -> h.frameOptions(f -> f.disable()).cacheControl(c -> c.disable()))
        .csrf(c -> c.disable())
        .build();
  }

  @Bean
  @Order(2)
  SecurityFilterChain own(HttpSecurity http) throws Exception {
    return http
        .authorizeHttpRequests(r -> r
            .requestMatchers("/", "/sign-in", "/welcome", "/join/**", "/error", "/actuator/health/**").permitAll()
            .requestMatchers("/themes/**").hasRole("MAKER")
            .anyRequest().authenticated())
        .formLogin(f -> f.loginPage("/sign-in").loginProcessingUrl("/sign-in").failureUrl("/sign-in?failed")
            .defaultSuccessUrl("/", false).permitAll())
        .logout(l -> l.logoutUrl("/sign-out").logoutSuccessUrl("/sign-in?left"))
        .headers(h -> h
            .contentSecurityPolicy(c -> c.policyDirectives(OWN_PAGES))
            .referrerPolicy(r -> r.policy(ReferrerPolicyHeaderWriter.ReferrerPolicy.SAME_ORIGIN)))
        .build();
  }
}
