package org.openpasture.engine.alert;

import java.util.List;
import java.util.Optional;
import org.openpasture.api.alert.AlertAnswer;
import org.openpasture.core.alert.Instructions;
import org.openpasture.core.registry.Paths;
import org.openpasture.core.registry.Registry;
import org.openpasture.engine.notice.NoticeViews;
import org.openpasture.store.alert.AlertView;
import org.openpasture.store.notice.NoticeStore;
import org.springframework.stereotype.Component;

/** How alerts are shown. */
@Component
public class AlertViews {
    private final NoticeStore notices;

    AlertViews(NoticeStore notices) {
        this.notices = notices;
    }

    public AlertAnswer answer(Registry registry, AlertView view) {
        var alert = view.alert();
        return new AlertAnswer(
                alert.id(),
                alert.ruleId(),
                alert.ruleName(),
                alert.severity(),
                view.state(),
                alert.summary(),
                alert.limit(),
                alert.value(),
                alert.unit(),
                alert.placeId(),
                Paths.down(registry, alert.placeId()),
                alert.pointId(),
                alert.startedAt(),
                alert.raisedAt(),
                alert.learntAt(),
                view.acknowledgedAt(),
                view.acknowledgedBy(),
                view.returnedAt(),
                view.returnValue(),
                view.closedAt(),
                view.shelf(),
                view.assignedTo(),
                alert.guidance(),
                instructions(view),
                alert.cause(),
                view.steps().stream()
                        .map(step -> new AlertAnswer.StepView(
                                step.at(), step.kind().id(), step.severity(), step.value(), step.person(), step.text()))
                        .toList(),
                view.notes().stream()
                        .map(note -> new AlertAnswer.NoteView(note.at(), note.person(), note.text()))
                        .toList(),
                notices.ofAlert(alert.id()).stream()
                        .map(notice -> NoticeViews.of(registry, notice))
                        .toList());
    }

    private static List<AlertAnswer.InstructionView> instructions(AlertView view) {
        return Instructions.of(view.alert().guidance()).stream()
                .map(line -> {
                    Optional<AlertView.Step> tick = view.tickOf(line.key());
                    return new AlertAnswer.InstructionView(
                            line.number(),
                            line.text(),
                            tick.map(AlertView.Step::at).orElse(null),
                            tick.map(AlertView.Step::person).orElse(""));
                })
                .toList();
    }
}
