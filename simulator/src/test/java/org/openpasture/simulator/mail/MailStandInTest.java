package org.openpasture.simulator.mail;

import static org.assertj.core.api.Assertions.assertThat;

import com.icegreen.greenmail.util.GreenMailUtil;
import com.icegreen.greenmail.util.ServerSetup;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import org.junit.jupiter.api.Test;

class MailStandInTest {
    private static String page(MailStandIn mailbox) throws Exception {
        return HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + mailbox.pagePort() + "/"))
                                .build(),
                        HttpResponse.BodyHandlers.ofString())
                .body();
    }

    @Test
    void showsWhatItGotAsTextAndNothingOfItAsMarkup() throws Exception {
        try (MailStandIn mailbox = new MailStandIn(0, 0)) {
            assertThat(page(mailbox)).contains("No mail yet.");
            GreenMailUtil.sendTextEmail(
                    "ann@x.example",
                    "pasture@x.example",
                    "|=| warning: pump",
                    "6.4 mm/s <script>alert(1)</script>",
                    new ServerSetup(mailbox.smtpPort(), "127.0.0.1", ServerSetup.PROTOCOL_SMTP));
            assertThat(mailbox.mails())
                    .containsExactly(new MailStandIn.Mail(
                            "ann@x.example",
                            "pasture@x.example",
                            "|=| warning: pump",
                            "6.4 mm/s <script>alert(1)</script>"));
            assertThat(page(mailbox))
                    .contains("|=| warning: pump", "&lt;script&gt;")
                    .doesNotContain("<script>");
        }
    }
}
