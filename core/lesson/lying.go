package lesson

// Lying gives what lies on a frame where its marks are those of a sheet, from the
// lowest to the highest: the pieces that nobody has moved, the work, and the
// pieces where people have put them, which look as they were prepared. What has
// no place on the frame is left out: what was removed, answers, replies,
// remarks, notes beneath others of a stack, pieces in the tray and, but in
// columns, notes in the margin.
func (f Frame) Lying(marks []Element) []Element {
	pieces := map[string]Element{}
	for _, p := range f.Prepared {
		if p.Layer != Fixed && p.OnFrame() {
			pieces[p.ID] = p
		}
	}
	beneath := Beneath(marks)
	taken := map[string]bool{}
	var work []Element
	for _, m := range marks {
		if !m.OnFrame() || beneath[m.ID] || m.IsNowhere() || m.InMargin() && !f.Layout.InColumns() {
			continue
		}
		if m.Placed == nil {
			work = append(work, m)
			continue
		}
		p, ok := pieces[m.Placed.Piece]
		if !ok {
			continue
		}
		taken[m.ID] = true
		p.ID, p.X, p.Y, p.Z, p.At, p.Turn = m.ID, m.X, m.Y, m.Z, m.At, m.Turn
		p.Author, p.By, p.Standing, p.Tray = m.Author, m.By, m.Standing, false
		work = append(work, p)
	}
	var all []Element
	for _, p := range f.Prepared {
		if _, piece := pieces[p.ID]; piece && !taken[p.ID] && !p.Tray {
			all = append(all, p)
		}
	}
	return append(all, work...)
}
