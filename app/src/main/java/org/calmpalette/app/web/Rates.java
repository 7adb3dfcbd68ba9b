package org.calmpalette.app.web;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import io.github.bucket4j.Bucket;
import io.github.bucket4j.ConsumptionProbe;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.security.Principal;
import java.time.Duration;
import java.util.regex.Pattern;
import org.calmpalette.core.language.Language;
import org.springframework.context.annotation.Configuration;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/**
 * How often one person may ask for what computes. The limits are far above what a person does, and hold on each node by
 * itself.
 */
@Configuration
class Rates implements HandlerInterceptor, WebMvcConfigurer {
    /** What is asked for while somebody types, points or looks a change over. */
    private static final Pattern COMPUTES = Pattern.compile(
            ".*/(try|judge|behind|preview|effect|part|change|search|rule|finding|grounds|measures|lighter(\\.img)?)(/.*)?");

    private static final Pattern BRINGS_IN =
            Pattern.compile("/themes|/themes/starter|/themes/\\d+/formats/read|/sites/[^/]+/choices\\.json");
    private static final Pattern BEFORE_SIGN_IN = Pattern.compile("/join/.*|/welcome|/makers/join/.*");

    /** @param sentence what is said of it; @param most at once; one more is allowed after each {@code every} */
    private record Limit(String name, int most, Duration every, String sentence) {}

    private static final Limit COMPUTING = new Limit("c", 60, Duration.ofMillis(100), "rate.computing");
    private static final Limit BRINGING = new Limit("b", 40, Duration.ofSeconds(5), "rate.bringing");
    private static final Limit JOINING = new Limit("j", 20, Duration.ofSeconds(20), "rate.joining");

    private final Cache<String, Bucket> buckets = Caffeine.newBuilder()
            .maximumSize(20_000)
            .expireAfterAccess(Duration.ofMinutes(30))
            .build();

    @Override
    public void addInterceptors(InterceptorRegistry registry) {
        registry.addInterceptor(this);
    }

    @Override
    public boolean preHandle(HttpServletRequest request, HttpServletResponse response, Object handler) {
        Limit limit = limit(request);
        if (limit == null) {
            return true;
        }
        Principal person = request.getUserPrincipal();
        String who = limit.name() + "|" + (person == null ? "@" + request.getRemoteAddr() : person.getName());
        Bucket bucket = buckets.get(who, k -> Bucket.builder()
                .addLimit(b -> b.capacity(limit.most()).refillGreedy(1, limit.every()))
                .build());
        ConsumptionProbe probe = bucket.tryConsumeAndReturnRemaining(1);
        if (!probe.isConsumed()) {
            throw new TooManyException(
                    Language.say(limit.sentence()),
                    Math.max(1, (probe.getNanosToWaitForRefill() + 999_999_999) / 1_000_000_000));
        }
        return true;
    }

    private static Limit limit(HttpServletRequest request) {
        String path = request.getRequestURI();
        boolean post = request.getMethod().equals("POST");
        if (post && BEFORE_SIGN_IN.matcher(path).matches()) {
            return JOINING;
        }
        if (post && BRINGS_IN.matcher(path).matches()) {
            return BRINGING;
        }
        return COMPUTES.matcher(path).matches() ? COMPUTING : null;
    }
}
