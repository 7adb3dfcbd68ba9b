package org.calmpalette.app.themes;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Duration;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** A theme that is being read in, with how far it is. */
@Entity
@Table(name = "import_job")
class ImportJob {
    /** A job that says nothing for so long was left behind by a server that stopped. */
    private static final Duration SILENCE = Duration.ofMinutes(2);

    @Id
    @JdbcTypeCode(SqlTypes.CHAR)
    @Column(length = 36)
    private String id;

    @Column(name = "account_id")
    private long accountId;

    private String name;
    private String state;
    private int done;
    private int total;
    private String path;
    private String message;
    private String mend;

    @Column(name = "theme_id")
    private Long themeId;

    @Column(name = "updated_at")
    private LocalDateTime updatedAt;

    protected ImportJob() {}

    ImportJob(String id, long accountId, String name) {
        this.id = id;
        this.accountId = accountId;
        this.name = cut(name, 255);
        this.state = "waiting";
        this.path = "";
        this.message = "";
        this.mend = "";
        touch();
    }

    private void touch() {
        updatedAt = LocalDateTime.now(ZoneOffset.UTC);
    }

    void progress(int nowDone, int nowTotal, String nowPath) {
        state = "reading";
        done = nowDone;
        total = nowTotal;
        path = cut(nowPath, 255);
        touch();
    }

    /** It is still in somebody's hands. */
    void alive() {
        touch();
    }

    /** Others are read before it. */
    public boolean isWaiting() {
        return state.equals("waiting");
    }

    void finish(long theme) {
        state = "done";
        themeId = theme;
        touch();
    }

    void fail(String why, String how) {
        state = "failed";
        message = cut(why, 1000);
        mend = cut(how, 1000);
        touch();
    }

    private static String cut(String text, int most) {
        return text.length() > most ? text.substring(0, most - 1) + "…" : text;
    }

    public String id() {
        return id;
    }

    long accountId() {
        return accountId;
    }

    public String name() {
        return name;
    }

    public boolean isDone() {
        return state.equals("done");
    }

    public boolean isFailed() {
        return state.equals("failed") || isSilent();
    }

    private boolean isSilent() {
        return (state.equals("reading") || state.equals("waiting"))
                && updatedAt.isBefore(LocalDateTime.now(ZoneOffset.UTC).minus(SILENCE));
    }

    public int done() {
        return done;
    }

    public int total() {
        return total;
    }

    public String path() {
        return path;
    }

    public String message() {
        return isSilent() ? "Reading stopped half-way because the server was restarted." : message;
    }

    public String mend() {
        return isSilent() ? "Bring the theme in once more." : mend;
    }

    public Long themeId() {
        return themeId;
    }
}
