package org.calmpalette.app.pictures;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import org.calmpalette.app.storage.ContentStore;
import org.calmpalette.app.themes.OpenTheme;
import org.calmpalette.app.themes.Snapshot;
import org.calmpalette.app.work.Job;
import org.calmpalette.app.work.Jobs;
import org.junit.jupiter.api.Test;

class AllPicturesTest {
    /** A page that found no result yet, and then that the work has ended, would stand there with neither, and ask no more. */
    @Test
    @SuppressWarnings("unchecked")
    void aWorkThatEndsWhileItsPageIsPutTogetherHasNotEndedOnIt() {
        Job<AllPictures.Result> job = mock(Job.class);
        when(job.hasEnded()).thenReturn(false, true);
        Jobs jobs = mock(Jobs.class);
        when(jobs.<AllPictures.Result>start(any(), any(), any())).thenReturn(job);
        OpenTheme open = mock(OpenTheme.class);
        when(open.head()).thenReturn(mock(Snapshot.class));
        AllPictures all = new AllPictures(jobs, mock(ContentStore.class));
        all.start(open, new AllPictures.Lightening(800, 80));
        AllPictures.Asked page = all.asked(open, AllPictures.Sort.LIGHTER).orElseThrow();
        assertThat(page.ended()).isFalse();
        assertThat(page.job().hasEnded()).as("meanwhile").isTrue();
        assertThat(page.ended()).isFalse();
        assertThat(all.asked(open, AllPictures.Sort.LIGHTER).orElseThrow().ended())
                .as("the next page")
                .isTrue();
    }
}
