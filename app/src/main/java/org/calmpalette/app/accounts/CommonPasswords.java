package org.calmpalette.app.accounts;

import java.util.Locale;
import java.util.Set;

/**
 * Passwords that are tried first by whoever guesses: the most common ones that are long enough here, from memory, and what needs no list,
 * such as one sign again and again (NIST SP 800-63B, 3.1.1.2: compare with a list of commonly used values).
 */
final class CommonPasswords {
    private static final Set<String> LIST = Set.of(
            "1234567890",
            "0123456789",
            "0987654321",
            "9876543210",
            "12345678910",
            "123456789a",
            "1q2w3e4r5t",
            "1q2w3e4r5t6y",
            "1qaz2wsx3edc",
            "qwertyuiop",
            "qwerty12345",
            "qwerty123456",
            "qwertzuiop",
            "azertyuiop",
            "asdfghjkl1",
            "asdfghjkl;",
            "zxcvbnm123",
            "password12",
            "password123",
            "password1234",
            "password12345",
            "password123456",
            "passwordpassword",
            "mypassword",
            "mypassword1",
            "newpassword",
            "changemenow",
            "changeme123",
            "letmein123",
            "letmeinnow",
            "welcome123",
            "welcome1234",
            "iloveyou12",
            "iloveyou123",
            "iloveyou1234",
            "sunshine123",
            "princess123",
            "football123",
            "baseball123",
            "superman123",
            "batman12345",
            "dragon12345",
            "monkey12345",
            "abcdefghij",
            "abcdefghijk",
            "abcd123456",
            "abc1234567",
            "abc123abc123",
            "a123456789",
            "q123456789",
            "admin12345",
            "admin123456",
            "administrator",
            "administrator1",
            "rootroot12",
            "testtest12",
            "test123456",
            "secret1234",
            "trustno1234",
            "passwort123",
            "passwort1234",
            "geheim12345",
            "hallo12345",
            "schatz12345",
            "correcthorsebatterystaple");

    private CommonPasswords() {}

    static boolean has(String password, String signIn) {
        String plain = password.toLowerCase(Locale.ROOT);
        boolean few = plain.chars().distinct().count() < 4;
        String name = signIn.toLowerCase(Locale.ROOT).replaceAll("[^\\p{L}]", "");
        return few
                || LIST.contains(plain)
                || name.length() > 3 && plain.replaceAll("[^\\p{L}]", "").equals(name);
    }
}
