package org.calmpalette.app.web;

import org.springframework.stereotype.Component;
import org.springframework.web.servlet.support.ServletUriComponentsBuilder;

/** Whole addresses, for what a person copies and sends. */
@Component("addresses")
class Addresses {
    public String absolute(String path) {
        return ServletUriComponentsBuilder.fromCurrentContextPath().path(path).toUriString();
    }
}
