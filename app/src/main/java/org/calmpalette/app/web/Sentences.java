package org.calmpalette.app.web;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.Locale;
import org.calmpalette.core.language.Language;
import org.springframework.context.MessageSource;
import org.springframework.context.MessageSourceResolvable;
import org.springframework.context.NoSuchMessageException;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.web.servlet.LocaleResolver;

/** Templates say what {@link Language} says, in the language of the request. */
@Configuration
class Sentences {
    @Bean
    MessageSource messageSource() {
        return new MessageSource() {
            @Override
            public String getMessage(String key, Object[] about, String otherwise, Locale locale) {
                return isKnown(key) ? said(key, about) : otherwise;
            }

            @Override
            public String getMessage(String key, Object[] about, Locale locale) {
                if (!isKnown(key)) {
                    throw new NoSuchMessageException(key, locale);
                }
                return said(key, about);
            }

            @Override
            public String getMessage(MessageSourceResolvable one, Locale locale) {
                for (String key : one.getCodes() == null ? new String[0] : one.getCodes()) {
                    if (isKnown(key)) {
                        return said(key, one.getArguments());
                    }
                }
                throw new NoSuchMessageException(String.valueOf(one), locale);
            }
        };
    }

    private static boolean isKnown(String key) {
        return Language.english().keys().contains(key);
    }

    private static String said(String key, Object[] about) {
        return Language.say(key, about == null ? new Object[0] : about);
    }

    /** Numbers and dates go with the sentences. */
    @Bean
    LocaleResolver localeResolver() {
        return new LocaleResolver() {
            @Override
            public Locale resolveLocale(HttpServletRequest request) {
                return Language.spoken().locale();
            }

            @Override
            public void setLocale(HttpServletRequest request, HttpServletResponse response, Locale locale) {
                throw new UnsupportedOperationException("a language is chosen by LanguageController");
            }
        };
    }
}
