package org.calmpalette.app.web;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class PagerTest {
    @Test
    void someOfAListAtATime() {
        List<Integer> all = IntStream.range(0, 450).boxed().toList();
        Pager first = Pager.of(0, all.size());
        assertThat(first.of(all)).hasSize(200).first().isEqualTo(0);
        assertThat(first.words()).isEqualTo("1 to 200 of 450");
        assertThat(first.before()).isEqualTo(-1);
        Pager last = Pager.of(first.after() + 200, all.size());
        assertThat(last.of(all)).hasSize(50).last().isEqualTo(449);
        assertThat(last.after()).isEqualTo(-1);
        assertThat(last.before()).isEqualTo(200);
    }

    @Test
    void anyNumberIsAPage() {
        assertThat(Pager.of(-5, 450).from()).isZero();
        assertThat(Pager.of(333, 450).from()).isEqualTo(200);
        assertThat(Pager.of(1_000_000_000, 450).from()).isEqualTo(400);
        assertThat(Pager.of(7, 0).of(List.of())).isEmpty();
        assertThat(Pager.of(0, 200).isNeeded()).isFalse();
    }

    @Test
    void aPageMayBeShorter() {
        Pager pager = Pager.of(99, 130, 60);
        assertThat(pager.words()).isEqualTo("61 to 120 of 130");
        assertThat(pager.before()).isZero();
        assertThat(Pager.of(pager.after(), 130, 60).words()).isEqualTo("121 to 130 of 130");
        assertThat(Pager.of(61, 61, 60).from()).isEqualTo(60);
        assertThat(Pager.of(0, 60, 60).isNeeded()).isFalse();
    }
}
