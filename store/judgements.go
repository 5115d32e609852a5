package store

import (
	"context"
	"errors"
	"fmt"
	"time"

	"alpenglow/core/assess"
	"alpenglow/core/lesson"

	"github.com/jmoiron/sqlx"
)

// judgementRow is a judgement as it is kept.
type judgementRow struct {
	Participant string                 `db:"participant_id"`
	Frame       string                 `db:"frame"`
	Mark        string                 `db:"mark"`
	Criterion   string                 `db:"criterion"`
	By          string                 `db:"by"`
	Level       JSON[*assess.Level]    `db:"level"`
	Comment     string                 `db:"comment"`
	Ink         JSON[[]lesson.Element] `db:"ink"`
	Voice       string                 `db:"voice"`
	At          int64                  `db:"at"`
}

func (r judgementRow) judged() assess.Judged {
	return assess.Judged{
		Piece: assess.Piece{Student: r.Participant, Frame: r.Frame, Mark: r.Mark, Criterion: r.Criterion},
		By:    r.By, Level: r.Level.V, At: r.At,
		Word: assess.Word{Comment: r.Comment, Ink: r.Ink.V, Voice: r.Voice}}
}

const judgements = `SELECT participant_id, frame, mark, criterion, by, coalesce(level, 'null') AS level, comment,
	coalesce(ink, 'null') AS ink, coalesce(voice::text, '') AS voice, at FROM judgements `

// Judgements lists what all teachers think of the work of a session, in the order in which it was noted.
func (s *Store) Judgements(ctx context.Context, session string) ([]assess.Judged, error) {
	rows, err := list[judgementRow](
		ctx,
		s,
		judgements+`WHERE session_id = $1 ORDER BY at, by, frame, mark, criterion`,
		session,
	)
	if err != nil {
		return nil, fmt.Errorf("read judgements: %w", err)
	}
	all := make([]assess.Judged, len(rows))
	for i, r := range rows {
		all[i] = r.judged()
	}
	return all, nil
}

// Judge notes what a teacher thinks of a piece, or takes it back where that is nothing. What is kept
// is decided by what the same teacher noted of it before, nil if nothing; the row is held meanwhile.
func (s *Store) Judge(ctx context.Context, session string, of assess.Piece, by string,
	decide func(before *assess.Judged) (assess.Judged, error)) (assess.Judged, error) {
	var next assess.Judged
	err := s.within(ctx, func(tx *sqlx.Tx) error {
		// The seat is held: the same teacher on two devices comes one after the other.
		var seat string
		if err := tx.GetContext(ctx, &seat, `SELECT id FROM participants WHERE session_id = $1 AND id = $2 FOR NO KEY UPDATE`,
			session, of.Student); err != nil {
			return none(err)
		}
		var before []judgementRow
		const one = `WHERE session_id = $1 AND participant_id = $2 AND frame = $3 AND mark = $4 AND criterion = $5
			AND by = $6`
		piece := []any{session, of.Student, of.Frame, of.Mark, of.Criterion, by}
		if err := tx.SelectContext(ctx, &before, judgements+one, piece...); err != nil {
			return err
		}
		var was *assess.Judged
		if len(before) > 0 {
			j := before[0].judged()
			was = &j
		}
		var err error
		if next, err = decide(was); err != nil {
			return err
		}
		if was != nil && was.Voice != "" && was.Voice != next.Voice {
			if _, err = tx.ExecContext(ctx, `DELETE FROM pictures WHERE id = $1 AND session_id = $2 AND NOT EXISTS
				(SELECT 1 FROM judgements j WHERE j.voice = $1 AND (j.session_id, j.participant_id, j.frame, j.mark, j.criterion,
				j.by) IS DISTINCT FROM ($2, $3, $4, $5, $6, $7))`, append([]any{was.Voice}, piece...)...); err != nil {
				return err
			}
		}
		if next.Empty() {
			_, err = tx.ExecContext(ctx, `DELETE FROM judgements `+one, piece...)
			return err
		}
		level, ink := any(nil), any(nil)
		if next.Level != nil {
			level, err = asJSON(next.Level)
		}
		if len(next.Ink) > 0 {
			var failed error
			ink, failed = asJSON(next.Ink)
			err = errors.Join(err, failed)
		}
		if err != nil {
			return err
		}
		// A voice is one that was recorded for this lesson, or none.
		_, err = tx.ExecContext(ctx, `INSERT INTO judgements
			(session_id, participant_id, frame, mark, criterion, by, level, comment, ink, voice, at)
			VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9,
				(SELECT id FROM pictures WHERE id = nullif($10, '')::uuid AND session_id = $1 AND type = 'audio/wav'), $11)
			ON CONFLICT (session_id, participant_id, frame, mark, criterion, by) DO UPDATE SET level = excluded.level,
			comment = excluded.comment, ink = excluded.ink, voice = excluded.voice, at = excluded.at`,
			append(piece, level, next.Comment, ink, next.Voice, next.At)...)
		return err
	})
	if err != nil {
		return next, fmt.Errorf("judge: %w", err)
	}
	return next, nil
}

// Spoken says whether a recording was given back to a participant.
func (s *Store) Spoken(ctx context.Context, recording, participant string) (bool, error) {
	return one[bool](ctx, s, `SELECT EXISTS (SELECT 1 FROM judgements j JOIN participants p ON p.id = j.participant_id
		JOIN sessions n ON n.id = j.session_id WHERE j.voice = $1 AND p.id = $2 AND j.by = n.teacher_id
		AND p.given_at IS NOT NULL AND n.ended_at IS NOT NULL)`, recording, participant)
}

// Comments lists the comments that a teacher wrote last, in all lessons, each once.
func (s *Store) Comments(ctx context.Context, by string, most int) ([]string, error) {
	return list[string](ctx, s, `SELECT comment FROM judgements WHERE by = $1 AND comment <> ''
		GROUP BY comment ORDER BY count(*) DESC, max(at) DESC LIMIT $2`, by, most)
}

// SetBlind says whether teachers judge a session without seeing what others think.
func (s *Store) SetBlind(ctx context.Context, session string, blind bool) error {
	_, err := s.db.ExecContext(ctx, `UPDATE sessions SET blind = $2 WHERE id = $1`, session, blind)
	if err != nil {
		return fmt.Errorf("set blind: %w", err)
	}
	return nil
}

// GiveBack gives students what their teacher thinks of their work, or takes it back; those that
// are of another session stay as they are.
func (s *Store) GiveBack(ctx context.Context, session string, participants []string, back bool) error {
	at := `now()`
	if back {
		at = `NULL`
	}
	_, err := s.db.ExecContext(ctx, `UPDATE participants SET given_at = `+at+` WHERE session_id = $1 AND id = ANY($2)
		AND (given_at IS NULL) = $3`, session, participants, !back)
	if err != nil {
		return fmt.Errorf("give back: %w", err)
	}
	return nil
}

// GivenLesson is a lesson of which a student was given something back.
type GivenLesson struct {
	Session     string    `db:"session"`
	Participant string    `db:"participant"`
	Title       string    `db:"title"`
	At          time.Time `db:"at"`
	GivenAt     time.Time `db:"given_at"`
}

// GivenByCard lists the lessons of which the holder of a card was given something back, the last
// one first, and says whether there is such a card.
func (s *Store) GivenByCard(ctx context.Context, code string) (lessons []GivenLesson, known bool, err error) {
	known, err = one[bool](ctx, s, `SELECT EXISTS (SELECT 1 FROM cards WHERE code = $1)`, code)
	if err != nil || !known {
		return nil, known, err
	}
	lessons, err = list[GivenLesson](ctx, s, `SELECT n.id AS session, p.id AS participant, n.title, n.started_at AS at,
		p.given_at FROM cards k JOIN students t ON t.person = k.person JOIN participants p ON p.student_id = t.id
		JOIN sessions n ON n.id = p.session_id AND NOT n.practice AND n.ended_at IS NOT NULL
		WHERE k.code = $1 AND p.given_at IS NOT NULL ORDER BY n.started_at DESC, n.id LIMIT 100`, code)
	return lessons, true, err
}
