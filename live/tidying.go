package live

import (
	"context"

	"alpenglow/core/audience"
	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
	"alpenglow/core/sheet"
)

// tidy offers what may take the place of a stroke that the asker sees.
func (h *Hub) tidy(ctx context.Context, s seat, ask Tidy) (Tidied, error) {
	at, err := h.readable(ctx, s.session, s.actor, ask.Sheet)
	if err != nil {
		return Tidied{}, err
	}
	var stroke lesson.Element
	found := false
	if err := at.with(func(on *sheet.Sheet) { stroke, found = on.Mark(ask.Mark) }); err != nil {
		return Tidied{}, err
	}
	if !found || !stroke.OnFrame() || !audience.Of(s.actor).Mark(stroke) {
		return Tidied{}, refusal.New(refusal.NoSuchMark)
	}
	return TidiedOf(stroke)
}

// TidiedOf gives what may take the place of a stroke.
func TidiedOf(stroke lesson.Element) (Tidied, error) {
	if stroke.Kind != lesson.KindStroke {
		return Tidied{}, refusal.New(refusal.NoSuchMark)
	}
	tidier := func(e lesson.Element) *Tidier {
		return &Tidier{X: e.X, Y: e.Y, W: e.W, H: e.H, Turn: e.Turn, Body: e.Body}
	}
	reply := Tidied{Smooth: tidier(lesson.Smoother(stroke))}
	if clean, sure, ok := lesson.Clean(stroke); ok {
		reply.Clean, reply.Confidence = tidier(clean), sure
	}
	return reply, nil
}
