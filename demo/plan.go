package demo

import (
	"context"

	"alpenglow/core/roster"
)

// plan notes groups, seats and who should not be together for 8 Juniper.
func (f *filler) plan(ctx context.Context) error {
	teacher, class := f.teachers[0], f.classes["8 Juniper"]
	kept, err := f.Class(ctx, teacher, class)
	if err != nil {
		return err
	}
	return f.SetPlan(ctx, teacher, class, func([]string) (roster.Plan, error) {
		students := kept.List()
		labs := roster.Set{ID: "labs", Name: "Lab teams", Groups: make([][]string, 6)}
		seats := roster.Seats{Rows: 5, Columns: 6, At: make([]string, 30)}
		for i, s := range students {
			labs.Groups[i%6] = append(labs.Groups[i%6], s.ID)
			seats.At[i] = s.ID
		}
		return roster.Plan{Sets: []roster.Set{labs}, Seats: seats,
			Apart: []roster.Pair{{students[1].ID, students[18].ID}, {students[10].ID, students[12].ID}}}, nil
	})
}
