package store

import (
	"cmp"
	"context"
	"database/sql"
	"errors"
	"fmt"
	"time"

	"alpenglow/core/lesson"
	"alpenglow/core/record"
	"alpenglow/core/roster"
	"alpenglow/core/session"
	"alpenglow/core/settings"
	"alpenglow/core/voices"

	"github.com/jackc/pgx/v5/pgconn"
	"github.com/jmoiron/sqlx"
)

// ErrTaken says that a value which must be unique is taken.
var ErrTaken = errors.New("taken")

// Session is a stored session. It has a board of its own, with its id; see Lesson.
type Session struct {
	ID        string  `db:"id"`
	TeacherID string  `db:"teacher_id"` // who started it; see Leads
	ClassID   *string `db:"class_id"`
	ClassName string  `db:"class_name"`
	// Students is the class list as it was when the session began, Plan what is
	// noted about the class.
	Students  JSON[[]roster.Listed] `db:"students"`
	Plan      JSON[roster.Plan]     `db:"plan"`
	Code      string                `db:"code"`
	Title     string                `db:"title"`
	State     JSON[session.State]   `db:"state"`
	StartedAt time.Time             `db:"started_at"`
	EndedAt   *time.Time            `db:"ended_at"`
	// Practice says that it is a rehearsal with made-up students.
	Practice bool `db:"practice"`
	// Language is that of the students' screens and the front screen.
	Language settings.Language `db:"language"`
	// Dark says that the front screen is dark.
	Dark bool `db:"dark"`
	// Blind says that teachers judge work without seeing what others think of it.
	Blind bool `db:"blind"`
	// Voices are how a new session's class may ask; see Store.Voices for later.
	Voices voices.Settings `db:"-"`
}

const sessionColumns = `language, dark, practice, id, teacher_id, class_id, class_name, students, plan, code, title, state,
	started_at, ended_at, blind`

// Calls gives what a participant is called in the record: the student's name, with the
// one that they typed if it was another.
func (n Session) Calls(p Participant) string {
	for _, l := range n.Students.V {
		if p.StudentID == nil || l.ID != *p.StudentID {
			continue
		}
		if l.Name == p.Name {
			return l.Name
		}
		return l.Name + " (" + p.Name + ")"
	}
	return p.Name
}

// StartSession stores a new session that begins with the content of a board, and
// sets its id and title. It says ErrTaken when the code is in use.
func (s *Store) StartSession(ctx context.Context, n *Session, board string, content lesson.Board) error {
	own, err := boardRow(content)
	if err != nil {
		return fmt.Errorf("start session: %w", err)
	}
	state, err := asJSON(n.State.V)
	if err != nil {
		return fmt.Errorf("start session: %w", err)
	}
	students, err := asJSON(n.Students.V)
	if err != nil {
		return fmt.Errorf("start session: %w", err)
	}
	plan, err := asJSON(n.Plan.V.Sound())
	if err != nil {
		return fmt.Errorf("start session: %w", err)
	}
	said, err := asJSON(voices.Voices{Settings: n.Voices})
	if err != nil {
		return fmt.Errorf("start session: %w", err)
	}
	told, err := asJSON(session.Command{Kind: session.KindPace, Pace: &session.SetPace{Pace: n.State.V.Pace}})
	if err != nil {
		return fmt.Errorf("start session: %w", err)
	}
	n.ID, n.Title = NewID(), content.Title
	_, err = s.db.ExecContext(ctx, `
WITH session AS (
    INSERT INTO sessions (id, teacher_id, board_id, class_name, students, code, state, rev, terms, practice,
        class_id, title, plan, language, dark)
        VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $16, $17, $19)
), board AS (INSERT INTO boards (id, teacher_id, session_id, outline) VALUES ($1, $2, $1, $13)
), voices AS (INSERT INTO voices (session_id, rev, said) VALUES ($1, 0, $18)
), happened AS (INSERT INTO happenings (session_id, rev, at, by, command) VALUES ($1, $8, $20, $2, $21))
INSERT INTO frames (board_id, id, content) SELECT $1, f.id, f.content FROM unnest($14::text[], $15::json[]) AS f(id, content)`,
		n.ID, n.TeacherID, board, n.ClassName, students, n.Code, state, n.State.V.Rev, n.State.V.Terms,
		n.Practice, n.ClassID, n.Title, own.outline, own.ids, own.frames, plan,
		cmp.Or(n.Language, settings.English), said, n.Dark, time.Now().UnixMilli(), told)
	if taken := new(pgconn.PgError); errors.As(err, &taken) && taken.ConstraintName == "sessions_live_code" {
		return ErrTaken
	}
	if err != nil {
		return fmt.Errorf("start session: %w", err)
	}
	return nil
}

// WasAt says when a made-up session was: it began, its class came in, and if it has
// ended it ended then; with what it began as the first thing that happened.
func (s *Store) WasAt(ctx context.Context, id string, began, ended time.Time) error {
	if _, err := s.db.ExecContext(ctx, `WITH people AS (UPDATE participants SET joined_at = $2 WHERE session_id = $1),
		first AS (UPDATE happenings SET at = $4 WHERE session_id = $1
			AND rev = (SELECT min(rev) FROM happenings WHERE session_id = $1))
		UPDATE sessions SET started_at = $2, ended_at = CASE WHEN ended_at IS NULL THEN NULL ELSE $3::timestamptz END
		WHERE id = $1`, id, began, ended, began.UnixMilli()); err != nil {
		return fmt.Errorf("session was at: %w", err)
	}
	return nil
}

// Session finds a session by its id.
func (s *Store) Session(ctx context.Context, id string) (Session, error) {
	return one[Session](ctx, s, `SELECT `+sessionColumns+` FROM sessions WHERE id = $1`, id)
}

// Lesson reads the board of a session as it is now.
func (s *Store) Lesson(ctx context.Context, session string) (lesson.Board, error) {
	kept, err := s.board(ctx, `session_id = $1`, session)
	return kept.Board(), err
}

// BoardOf gives the board that a session was started from.
func (s *Store) BoardOf(ctx context.Context, session string) (string, error) {
	board, err := one[*string](ctx, s, `SELECT board_id FROM sessions WHERE id = $1`, session)
	if err == nil && board == nil {
		err = ErrNotFound
	}
	if err != nil {
		return "", err
	}
	return *board, nil
}

// SessionByCode finds the live session with a code.
func (s *Store) SessionByCode(ctx context.Context, code string) (Session, error) {
	return one[Session](ctx, s, `SELECT `+sessionColumns+` FROM sessions WHERE code = $1 AND ended_at IS NULL`, code)
}

// SessionSummary is a session in a list.
type SessionSummary struct {
	ID        string     `db:"id"`
	Title     string     `db:"title"`
	ClassName string     `db:"class_name"`
	BoardID   *string    `db:"board_id"`
	Students  int        `db:"students"`
	StartedAt time.Time  `db:"started_at"`
	EndedAt   *time.Time `db:"ended_at"`
	Practice  bool       `db:"practice"`
	// By is who started it, where that is somebody else who teaches the class.
	By *string `db:"by"`
	// Months is how long its record is kept after it has ended.
	Months int `db:"months"`
	// ClassID is its class, Away that it is put away.
	ClassID *string `db:"class_id"`
	Away    bool    `db:"away"`
	// Due is until when it is homework, in milliseconds since 1970; nil for a lesson.
	Due *int64 `db:"due"`
}

// Leads reports whether a teacher may lead a session and read its record: theirs, or
// of a class that they teach with whoever started it.
func (s *Store) Leads(ctx context.Context, session, teacher string) (bool, error) {
	return one[bool](ctx, s, `SELECT EXISTS (SELECT 1 FROM leads WHERE session_id = $1 AND teacher_id = $2)`, session,
		teacher)
}

// Sessions lists the sessions that a teacher may lead, the last one first.
func (s *Store) Sessions(ctx context.Context, teacher string) ([]SessionSummary, error) {
	return list[SessionSummary](ctx, s, `
		SELECT s.id, s.title, s.class_name, s.board_id, s.started_at, s.ended_at, s.practice, s.people AS students,
			CASE WHEN s.teacher_id <> $1 THEN t.name END AS by, `+keptFor()+` AS months,
			s.class_id, c.archived_at IS NOT NULL AS away,
			CASE WHEN s.ended_at IS NULL THEN (s.state->'home'->>'until')::bigint END AS due
		FROM leads l JOIN sessions s ON s.id = l.session_id JOIN teachers t ON t.id = s.teacher_id
			LEFT JOIN classes c ON c.id = s.class_id
		WHERE l.teacher_id = $1 ORDER BY s.started_at DESC LIMIT 200`, teacher)
}

// ForgetPractice throws away a rehearsal with all that was done in it.
func (s *Store) ForgetPractice(ctx context.Context, id string) error {
	if err := s.within(ctx, func(tx *sqlx.Tx) error {
		return forgetSessions(ctx, tx, `id = $1 AND n.practice`, id)
	}); err != nil {
		return fmt.Errorf("forget practice: %w", err)
	}
	return nil
}

// StalePractice lists rehearsals that began before a time and were never ended.
func (s *Store) StalePractice(ctx context.Context, before time.Time) ([]string, error) {
	return list[string](ctx, s, `SELECT id FROM sessions WHERE practice AND started_at < $1`, before)
}

// SetState stores the next state of a session and reports whether it did: not
// when somebody else has changed the state since. It says ErrTaken where a lesson would run again under a
// code that another has by now. Where the teacher leads,
// nobody keeps a place of their own.
func (s *Store) SetState(ctx context.Context, id string, next session.State) (bool, error) {
	text, err := asJSON(next)
	if err != nil {
		return false, fmt.Errorf("set state: %w", err)
	}
	var at int64
	var by string
	var command *string
	if h := next.Happened; h != nil {
		told, err := asJSON(h.Command)
		if err != nil {
			return false, fmt.Errorf("set state: %w", err)
		}
		at, by, command = h.At, h.By, &told
	}
	var stored int
	err = s.lesson.GetContext(ctx, &stored, `
WITH kept AS (UPDATE sessions SET state = $2, rev = $3, terms = $6, ended_at = CASE WHEN $4 THEN now() END,
        code = coalesce(nullif($10, ''), code) WHERE id = $1
AND rev = $3 - 1 RETURNING id),
     led AS (UPDATE participants SET frame = NULL FROM kept WHERE session_id = kept.id AND frame IS NOT NULL AND $5),
     happened AS (INSERT INTO happenings (session_id, rev, at, by, command) SELECT id, $3, $7, $8, $9::json FROM kept
         WHERE $9 IS NOT NULL)
SELECT count(*) FROM kept`, id, text, next.Rev, next.Ended, next.Pace != session.Own, next.Terms, at, by, command,
		next.Code)
	if taken := new(pgconn.PgError); errors.As(err, &taken) && taken.ConstraintName == "sessions_live_code" {
		return false, ErrTaken
	}
	if err != nil {
		return false, fmt.Errorf("set state: %w", err)
	}
	return stored == 1, nil
}

// Participant is one student in one session.
type Participant struct {
	ID        string `db:"id"`
	SessionID string `db:"session_id"`
	Name      string `db:"name"`
	// StudentID is which student of the class it is, where that is known.
	StudentID *string   `db:"student_id"`
	JoinedAt  time.Time `db:"joined_at"`
	// Frame is where they have gone at their own pace.
	Frame *string `db:"frame"`
	// GivenAt is when they were given back what the teacher thinks of their work.
	GivenAt *time.Time `db:"given_at"`
}

// SetPlace notes the frame that a participant has gone to at their own pace;
// where the teacher leads by now it notes nothing.
func (s *Store) SetPlace(ctx context.Context, participant, frame string) error {
	if _, err := s.db.ExecContext(ctx, `UPDATE participants p SET frame = $2 FROM sessions s
		WHERE p.id = $1 AND s.id = p.session_id
		AND s.state->>'pace' = $3`, participant, frame, session.Own); err != nil {
		return fmt.Errorf("set place: %w", err)
	}
	return nil
}

// ErrThere says that somebody who comes with their card is in the session already.
var ErrThere = errors.New("there already")

// Joining is how somebody joins a session.
type Joining struct {
	// Limit is how many participants there are at most.
	Limit int
	// Token is the hash of what their device holds.
	Token []byte
	// Student is which student of the class they are; "" where that is not known. Who
	// is there already is not the same student twice.
	Student string
	// Card says that they have come with their card.
	Card bool
	// Decide gives their name, or why they do not come in, given how the session stands,
	// the participants as whom that student is there, and the names that are taken.
	Decide func(state session.State, there, taken []string) (string, error)
}

// Anybody lets everybody in who is not more than there may be, by the name that apart
// chooses given those that are there.
func Anybody(apart func(taken []string) string) func(session.State, []string, []string) (string, error) {
	return func(_ session.State, _, taken []string) (string, error) { return apart(taken), nil }
}

// Join adds a participant. Joins to one session wait for each other, so that no name
// is given twice, and nobody comes in past a door that is being closed. Beyond the limit it
// says ErrTaken, after the end ErrNotFound, and else what Decide says. Who comes with a
// card and is there already, from another device perhaps at the same moment, is not
// there twice: it says ErrThere, and gives their participant's id.
func (s *Store) Join(ctx context.Context, sessionID string, j Joining) (Participant, error) {
	p := Participant{ID: NewID(), SessionID: sessionID}
	err := s.within(ctx, func(tx *sqlx.Tx) error {
		var state JSON[session.State]
		err := tx.GetContext(ctx, &state, `UPDATE sessions SET people = people + 1 WHERE id = $1 AND ended_at IS NULL
			RETURNING state`, sessionID)
		switch {
		case errors.Is(err, sql.ErrNoRows):
			return ErrNotFound
		case err != nil:
			return err
		}
		var there, taken []string
		if err := tx.SelectContext(ctx, &there, `SELECT id FROM participants WHERE session_id = $1
			AND student_id = nullif($2, '')::uuid ORDER BY joined_at, id`, sessionID, j.Student); err != nil {
			return err
		}
		if j.Card && len(there) > 0 {
			p.ID = there[0]
			return ErrThere
		}
		if err := tx.SelectContext(ctx, &taken, `SELECT name FROM participants WHERE session_id = $1`,
			sessionID); err != nil {
			return err
		}
		if len(taken) >= j.Limit {
			return ErrTaken
		}
		if p.Name, err = j.Decide(state.V, there, taken); err != nil {
			return err
		}
		return tx.GetContext(
			ctx,
			&p,
			`WITH pass AS (INSERT INTO passes (token, participant_id, card) VALUES ($4, $1, $6))
			INSERT INTO participants (id, session_id, name, student_id) VALUES ($1, $2, $3, (SELECT t.id FROM students t
				WHERE t.id = nullif($5, '')::uuid
				AND NOT EXISTS (SELECT 1 FROM participants o WHERE o.session_id = $2 AND o.student_id = t.id)))
			RETURNING id, session_id, student_id, name, joined_at, frame`,
			p.ID,
			sessionID,
			p.Name,
			j.Token,
			j.Student,
			j.Card,
		)
	})
	if errors.Is(err, ErrThere) {
		return Participant{ID: p.ID}, err
	}
	if err != nil {
		return Participant{}, fmt.Errorf("join: %w", err)
	}
	return p, nil
}

// Return gives a participant another device, to which they have come with their
// card, by the hash of what it holds, and gives their name.
func (s *Store) Return(ctx context.Context, participant string, token []byte) (name string, err error) {
	return one[string](ctx, s, `WITH pass AS (INSERT INTO passes (token, participant_id, card) VALUES ($1, $2, true))
		SELECT name FROM participants WHERE id = $2`, token, participant)
}

// Rename gives a participant another name, which Apart chooses given those that the
// others have. It says ErrNotFound where there is no such participant, or the session has ended.
func (s *Store) Rename(
	ctx context.Context,
	session, participant string,
	apart func(taken []string) string,
) (string, error) {
	var name string
	err := s.within(ctx, func(tx *sqlx.Tx) error {
		var taken []string
		if err := tx.GetContext(ctx, &name, `SELECT id FROM sessions WHERE id = $1 AND ended_at IS NULL FOR UPDATE`,
			session); err != nil {
			return err
		}
		if err := tx.SelectContext(ctx, &taken, `SELECT name FROM participants WHERE session_id = $1 AND id <> $2`,
			session, participant); err != nil {
			return err
		}
		return tx.GetContext(
			ctx,
			&name,
			`UPDATE participants SET name = $3 WHERE session_id = $1 AND id = $2 RETURNING name`,
			session,
			participant,
			apart(taken),
		)
	})
	if errors.Is(err, sql.ErrNoRows) {
		return "", ErrNotFound
	}
	if err != nil {
		return "", fmt.Errorf("rename participant: %w", err)
	}
	return name, nil
}

// Tie notes which student of the class a participant is; "" for none of them. It says
// ErrNotFound where there is no such participant, or student of the session's class.
func (s *Store) Tie(ctx context.Context, session, participant, student string) error {
	_, err := one[string](ctx, s, `UPDATE participants p SET student_id = nullif($3, '')::uuid FROM sessions s
		WHERE s.id = p.session_id AND s.id = $1 AND p.id = $2
		AND ($3 = '' OR EXISTS (SELECT 1 FROM students t WHERE t.id = nullif($3, '')::uuid AND (t.class_id = s.class_id
			OR $3 IN (SELECT e->>'id' FROM json_array_elements(s.students) e))))
		RETURNING p.id`, session, participant, student)
	return err
}

// ParticipantByToken finds a participant by the hash of their token.
func (s *Store) ParticipantByToken(ctx context.Context, token []byte) (Participant, error) {
	return one[Participant](ctx, s, `SELECT p.id, p.session_id, p.student_id, p.name, p.joined_at, p.frame,
		p.given_at
		FROM passes k JOIN participants p ON p.id = k.participant_id WHERE k.token = $1`, token)
}

// Participants lists the participants of a session in the order they joined.
func (s *Store) Participants(ctx context.Context, sessionID string) ([]Participant, error) {
	return list[Participant](
		ctx,
		s,
		`SELECT id, session_id, student_id, name, joined_at, frame, given_at FROM participants
		WHERE session_id = $1 ORDER BY joined_at, id`,
		sessionID,
	)
}

// SessionMarks reads every mark of every sheet of a session.
func (s *Store) SessionMarks(ctx context.Context, sessionID string) ([]record.Mark, error) {
	return s.marksWhere(ctx, `s.session_id = $1`, sessionID)
}

// MarksOf reads the marks of one participant of a session.
func (s *Store) MarksOf(ctx context.Context, sessionID, participant string) ([]record.Mark, error) {
	return s.marksWhere(ctx, `s.session_id = $1 AND m.mark->>'author' = $2`, sessionID, participant)
}

// MarksOn reads the marks of one frame of a session, on all its sheets.
func (s *Store) MarksOn(ctx context.Context, sessionID, frame string) ([]record.Mark, error) {
	return s.marksWhere(ctx, `s.session_id = $1 AND s.frame_id = $2`, sessionID, frame)
}

// SessionAnswers reads the answers of a session alone.
func (s *Store) SessionAnswers(ctx context.Context, sessionID string) ([]record.Mark, error) {
	return s.marksWhere(ctx, `s.session_id = $1 AND m.mark->>'kind' = 'answer'`, sessionID)
}

func (s *Store) marksWhere(ctx context.Context, where string, args ...any) ([]record.Mark, error) {
	var rows []struct {
		Frame string               `db:"frame_id"`
		Mark  JSON[lesson.Element] `db:"mark"`
	}
	err := s.db.SelectContext(ctx, &rows, `SELECT s.frame_id, m.mark FROM marks m JOIN sheets s ON s.id = m.sheet_id
		WHERE `+where, args...)
	if err != nil {
		return nil, fmt.Errorf("read marks: %w", err)
	}
	marks := make([]record.Mark, len(rows))
	for i, r := range rows {
		marks[i] = record.Mark{Frame: r.Frame, Element: r.Mark.V}
	}
	return marks, nil
}

// within runs f in a transaction that is kept when f succeeds.
func (s *Store) within(ctx context.Context, f func(tx *sqlx.Tx) error) error {
	return within(ctx, s.db, f)
}

func within(ctx context.Context, db *sqlx.DB, f func(tx *sqlx.Tx) error) error {
	tx, err := db.BeginTxx(ctx, nil)
	if err != nil {
		return err
	}
	defer tx.Rollback()
	if err := f(tx); err != nil {
		return err
	}
	return tx.Commit()
}

// Numbers are by how much a session has moved on: the revisions of its state and
// of what was said, and how many have joined.
type Numbers struct {
	Rev    int64 `db:"rev"`
	Voices int64 `db:"voices"`
	People int   `db:"people"`
}

// Numbers reads them.
func (s *Store) Numbers(ctx context.Context, session string) (Numbers, error) {
	return one[Numbers](ctx, s, `SELECT rev, people,
		coalesce((SELECT v.rev FROM voices v WHERE v.session_id = s.id), 0) AS voices FROM sessions s WHERE id = $1`, session)
}

// State reads the state of a session alone.
func (s *Store) State(ctx context.Context, id string) (session.State, error) {
	state, err := one[JSON[session.State]](ctx, s, `SELECT state FROM sessions WHERE id = $1`, id)
	return state.V, err
}

// Leave takes a pass away: what a device holds opens nothing any more.
func (s *Store) Leave(ctx context.Context, token []byte) error {
	if _, err := s.db.ExecContext(ctx, `DELETE FROM passes WHERE token = $1`, token); err != nil {
		return fmt.Errorf("leave: %w", err)
	}
	return nil
}
