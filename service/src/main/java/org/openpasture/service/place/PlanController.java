package org.openpasture.service.place;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Optional;
import org.openpasture.api.place.MarksRequest;
import org.openpasture.api.place.PlanView;
import org.openpasture.core.edit.PlanEdits;
import org.openpasture.core.edit.PlanWish;
import org.openpasture.core.people.Right;
import org.openpasture.engine.picture.Cleaned;
import org.openpasture.engine.picture.PictureCleaner;
import org.openpasture.engine.secret.Tokens;
import org.openpasture.service.access.Editor;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.openpasture.service.web.Turns;
import org.openpasture.store.picture.PictureStore;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Pictures of places, and where points and places are on them. */
@RestController
class PlanController {
    private static final int DIGEST_CHARACTERS = 16;
    private final PictureStore pictures;
    private final PlanViews views;
    private final Reader reader;
    private final Editor editor;
    /** A large picture takes some memory while it is decoded. */
    private final Turns turns = new Turns(1, "Other uploads");

    PlanController(PictureStore pictures, PlanViews views, Reader reader, Editor editor) {
        this.pictures = pictures;
        this.views = views;
        this.reader = reader;
        this.editor = editor;
    }

    /** The picture of a place, with what is marked on it as far as the reader may see it; 404 if there is none. */
    @GetMapping("/api/v1/places/{id}/plan")
    PlanView plan(@PathVariable String id) {
        return views.view(reader.access(), visible(id));
    }

    private String visible(String id) {
        String place = reader.place(id).id();
        reader.require(Right.LOOK, place, "look here");
        return place;
    }

    /** Marks points and places on the picture, in place of what was marked before. */
    @PutMapping("/api/v1/places/{id}/plan")
    PlanView mark(@PathVariable String id, @RequestBody MarksRequest request) {
        return views.view(editor.edit(access -> PlanEdits.edit(access, new PlanWish.Place(id, request.marks()))), id);
    }

    /** The picture itself, as PNG, JPEG or SVG. */
    @GetMapping(
            value = "/api/v1/places/{id}/picture",
            produces = {MediaType.IMAGE_PNG_VALUE, MediaType.IMAGE_JPEG_VALUE, "image/svg+xml"})
    ResponseEntity<byte[]> picture(@PathVariable String id) {
        return views.picture(visible(id));
    }

    /**
     * Gives a place a picture, or another one. PNG, JPEG and SVG of up to 20 MB are taken; they are written anew
     * without scripts and without what a camera adds, and scaled to 2,560 pixels. What is marked stays where it is.
     */
    @PutMapping("/api/v1/places/{id}/picture")
    PlanView show(@PathVariable String id, HttpServletRequest request) {
        editor.check(access -> PlanEdits.edit(access, new PlanWish.Show(id, "", 1, 1)));
        // Read in turn too: several large ones at once would fill the memory.
        Cleaned cleaned = turns.take(() -> clean(request));
        String digest = Tokens.hash(cleaned.content()).substring(0, DIGEST_CHARACTERS);
        Optional<PictureStore.Kept> before = pictures.find(id);
        return views.view(
                editor.edit(
                        access -> PlanEdits.edit(
                                access, new PlanWish.Show(id, digest, cleaned.width(), cleaned.height())),
                        () -> pictures.save(id, new PictureStore.Kept(digest, cleaned.type(), cleaned.content())),
                        () -> before.ifPresentOrElse(kept -> pictures.save(id, kept), () -> pictures.remove(id))),
                id);
    }

    private static Cleaned clean(HttpServletRequest request) {
        try {
            byte[] content = request.getInputStream().readAllBytes();
            if (content.length == 0) {
                throw Problem.invalid("The request holds no picture.");
            }
            return PictureCleaner.clean(content);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Removes the picture of a place, with what is marked on it. */
    @DeleteMapping("/api/v1/places/{id}/picture")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable String id) {
        editor.edit(access -> PlanEdits.edit(access, new PlanWish.Remove(id)));
        pictures.remove(id);
    }
}
