// Package demo fills an empty house with Tern Harbour School, which is made up: three
// teachers, their classes and boards, and lessons of the past weeks with what the
// simulated class did in them. Filled twice, two houses have the same in them.
package demo

import (
	"context"
	"errors"
	"fmt"
	"math/rand/v2"
	"time"

	"alpenglow/core/lesson"
	"alpenglow/core/settings"
	"alpenglow/store"
)

// seed makes everything that is left to chance the same every time.
const seed = 1890

// Fill stores it, once: not in a house that has somebody of this school already. Times
// are before now.
func Fill(ctx context.Context, s *store.Store, now time.Time) error {
	_, err := s.TeacherByEmail(ctx, Email)
	if err == nil || !errors.Is(err, store.ErrNotFound) {
		return err
	}
	f := filler{Store: s, random: rand.New(rand.NewPCG(seed, 1)), now: now}
	for _, step := range []func(context.Context) error{f.house, f.people, f.classBook, f.shelf, f.lessons} {
		if err := step(ctx); err != nil {
			return fmt.Errorf("fill the demo: %w", err)
		}
	}
	return nil
}

// Filled fills a house as of now.
func Filled(ctx context.Context, s *store.Store) error { return Fill(ctx, s, time.Now()) }

// filler fills a house.
type filler struct {
	*store.Store
	random *rand.Rand
	now    time.Time

	teachers []string                // ids, as staff has them
	classes  map[string]string       // ids by name
	boards   map[string]lesson.Board // by title
	shelfIDs map[string]string       // ids of boards by title
}

func (f *filler) house(ctx context.Context) error {
	house := settings.Usually()
	house.School, house.Guests = "Tern Harbour School", true
	return f.SetHouse(ctx, house)
}

func (f *filler) people(ctx context.Context) error {
	for _, p := range staff {
		t := store.Teacher{Email: p.email, Name: p.name, Password: hashed, Role: p.role}
		if err := f.AddTeacher(ctx, &t); err != nil {
			return err
		}
		f.teachers = append(f.teachers, t.ID)
	}
	return nil
}

func (f *filler) classBook(ctx context.Context) error {
	f.classes = map[string]string{}
	for _, c := range classes(f.random) {
		first := f.teachers[c.teachers[0]]
		id, err := f.AddClass(ctx, first, c.name, c.students)
		if err != nil {
			return err
		}
		f.classes[c.name] = id
		for _, more := range c.teachers[1:] {
			if err := f.TeachTogether(ctx, first, id, f.teachers[more], true); err != nil {
				return err
			}
		}
	}
	return f.plan(ctx)
}

func (f *filler) shelf(ctx context.Context) error {
	f.boards, f.shelfIDs = map[string]lesson.Board{}, map[string]string{}
	all := boards()
	for who := range all {
		// The first one is the last that was changed: it stands first.
		for i := len(all[who]) - 1; i >= 0; i-- {
			board := all[who][i]
			id, err := f.AddBoard(ctx, f.teachers[who], board)
			if err != nil {
				return fmt.Errorf("%s: %w", board.Title, err)
			}
			f.boards[board.Title], f.shelfIDs[board.Title] = board, id
		}
	}
	return nil
}
