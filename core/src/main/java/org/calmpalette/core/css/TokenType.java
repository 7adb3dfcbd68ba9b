package org.calmpalette.core.css;

/** The token types of CSS Syntax Level 3, section 4, and comments, which are kept here. */
public enum TokenType {
    COMMENT,
    WHITESPACE,
    IDENT,
    FUNCTION,
    AT_KEYWORD,
    HASH,
    STRING,
    BAD_STRING,
    URL,
    BAD_URL,
    DELIM,
    NUMBER,
    PERCENTAGE,
    DIMENSION,
    CDO,
    CDC,
    COLON,
    SEMICOLON,
    COMMA,
    LEFT_BRACKET,
    RIGHT_BRACKET,
    LEFT_PAREN,
    RIGHT_PAREN,
    LEFT_BRACE,
    RIGHT_BRACE,
    EOF
}
