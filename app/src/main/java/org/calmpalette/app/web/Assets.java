package org.calmpalette.app.web;

import java.io.IOException;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Duration;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HexFormat;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.core.io.Resource;
import org.springframework.core.io.support.PathMatchingResourcePatternResolver;
import org.springframework.http.CacheControl;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.config.annotation.CorsRegistry;
import org.springframework.web.servlet.config.annotation.ResourceHandlerRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import org.springframework.web.servlet.resource.VersionResourceResolver;

/**
 * Our own styles, scripts and fonts, under an address that changes with any of them and may be cached for ever. One version holds for
 * all, since scripts import each other by relative addresses: with a version of its own a script that is kept would go on importing
 * the old ones.
 */
@Component
class Assets implements WebMvcConfigurer {
    private static final String PACKED = "classpath:/static/assets/";
    private static final CacheControl KEPT =
            CacheControl.maxAge(Duration.ofDays(365)).cachePublic();

    private final String sources;

    /** @param sources folder of the assets while one works on them: taken from there at each request; empty if they are packed */
    Assets(@Value("${calm.assets:}") String sources) {
        this.sources = sources;
    }

    @Override
    public void addResourceHandlers(ResourceHandlerRegistry registry) {
        // Nothing else is looked for among the files that are packed: every link of a page would be, in every library.
        registry.addResourceHandler("/webjars/**")
                .addResourceLocations("classpath:/META-INF/resources/webjars/")
                .setCacheControl(KEPT)
                .resourceChain(true);
        var assets = registry.addResourceHandler("/assets/**");
        if (!sources.isEmpty()) {
            assets.addResourceLocations("file:" + sources + "/").setCacheControl(CacheControl.noStore());
            return;
        }
        assets.addResourceLocations(PACKED)
                .setCacheControl(KEPT)
                .resourceChain(true)
                .addResolver(new VersionResourceResolver().addFixedVersionStrategy(version(), "/**"));
    }

    /** Previews have an origin of their own, and modules are asked for across origins. */
    @Override
    public void addCorsMappings(CorsRegistry registry) {
        registry.addMapping("/assets/**").allowedOrigins("*").allowedMethods("GET", "HEAD");
    }

    private static String version() {
        try {
            MessageDigest digest = MessageDigest.getInstance("SHA-256");
            Resource[] all = new PathMatchingResourcePatternResolver().getResources("classpath*:/static/assets/**/*.*");
            Arrays.sort(all, Comparator.comparing(Resource::getFilename));
            for (Resource asset : all) {
                digest.update(asset.getFilename().getBytes(java.nio.charset.StandardCharsets.UTF_8));
                digest.update(asset.getContentAsByteArray());
            }
            return HexFormat.of().formatHex(digest.digest(), 0, 8);
        } catch (IOException | NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }
}
