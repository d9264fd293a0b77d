package org.openpasture.simulator.demo;

import org.openpasture.api.people.AcceptRequest;
import org.openpasture.api.people.InvitationRequest;
import org.openpasture.api.people.InvitationView;
import org.openpasture.api.people.SessionView;
import org.openpasture.api.people.SetupRequest;
import org.openpasture.api.people.SignInRequest;
import org.openpasture.api.people.WaysView;
import org.openpasture.client.http.ApiClient;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.people.Right;

/** Makes the demo's accounts the way people do: the first visit, then invitations. */
final class DemoPeople {
    private DemoPeople() {}

    /** Makes the owner and returns a client that is signed in as such. */
    static ApiClient owner(ApiClient service, String setupCode, String password) {
        service.post("api/v1/setup", new SetupRequest(setupCode, "owner", "owner@harrowfell.example", password));
        SessionView session =
                service.post("api/v1/session", new SignInRequest("owner", password, "demo"), SessionView.class);
        return service.withToken(String.valueOf(session.token()));
    }

    /** Invites somebody to a site and takes the invitation up. */
    static void invite(ApiClient owner, ApiClient anonymous, String name, Right right, String siteId, String password) {
        InvitationView invitation = owner.post(
                "api/v1/invitations", new InvitationRequest(name, null, right, siteId), InvitationView.class);
        String link = String.valueOf(invitation.link());
        anonymous.post(
                "api/v1/invitations/taken-up",
                new AcceptRequest(link.substring(link.indexOf('#') + 1), name, password));
        SessionView session =
                anonymous.post("api/v1/session", new SignInRequest(name, password, "demo"), SessionView.class);
        anonymous
                .withToken(String.valueOf(session.token()))
                .put(
                        "api/v1/session/notices",
                        new WaysView(
                                name + "@harrowfell.example",
                                Severity.ADVISORY,
                                null,
                                null,
                                null,
                                null,
                                null,
                                null,
                                null,
                                null));
    }
}
