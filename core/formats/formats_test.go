package formats_test

import (
	"archive/zip"
	"bytes"
	"encoding/json"
	"fmt"
	"image"
	"image/png"
	"reflect"
	"slices"
	"strconv"
	"strings"
	"testing"

	"alpenglow/core/formats"
	"alpenglow/core/lesson"
	"alpenglow/core/paper"
	"alpenglow/core/picture"
	"alpenglow/core/poll"
	"alpenglow/core/refusal"
)

func TestLines(t *testing.T) {
	for _, c := range []struct{ name, text, want string }{
		{"plain lines", "high tide\n\nlow tide\r\n", "high tide|low tide"},
		{"a sentence with commas", "first, second and third\nfourth", "first, second and third|fourth"},
		{"comma-separated (RFC 4180)", "term,meaning\nspring tide,\"highest, at new moon\"\n",
			"term · meaning|spring tide · highest, at new moon"},
		{"a heading", "term,meaning\nspring tide,highest\nneap tide,lowest",
			"term · meaning: spring tide · highest|neap tide · lowest"},
		{"no heading: figures", "2 h,4 m\n3 h,5 m\n4 h,6 m", "2 h · 4 m|3 h · 5 m|4 h · 6 m"},
		{"no heading: a column without a name", "term;\nspring tide;highest\nneap tide;lowest",
			"term|spring tide · highest|neap tide · lowest"},
		{"no heading: lines of no table", "Phases\nnew moon\nfull moon", "Phases|new moon|full moon"},
		{"semicolons", "a;b\nc;;d", "a · b|c · d"},
		{"tabs", "a\tb\nc\td", "a · b|c · d"},
		{"a byte order mark", "\ufeffone\ntwo", "one|two"},
		{"UTF-16", "\xff\xfeM\x00o\x00o\x00n\x00", "Moon"},
		{"Windows-1252", "Fl\xfcsse\n\x80 5", "Flüsse|€ 5"},
	} {
		listed, err := formats.Lines([]byte(c.text))
		got := strings.Join(listed.Lines, "|")
		if listed.Heading != "" {
			got = listed.Heading + ": " + got
		}
		if err != nil || got != c.want {
			t.Errorf("%s: %q, %v, want %q", c.name, got, err, c.want)
		}
	}
	if l, err := formats.Lines([]byte(strings.Repeat("x\n", 130))); len(l.Lines) != formats.MaxLines ||
		l.More != 30 || err != nil {
		t.Errorf("%d lines and %d more, %v", len(l.Lines), l.More, err)
	}
	for text, want := range map[string]refusal.Code{"": refusal.FileEmpty, " \n\t\n": refusal.FileEmpty,
		"a\x00b": refusal.FileUnreadable} {
		if _, err := formats.Lines([]byte(text)); refusal.Of(err) == nil || refusal.Of(err).Code != want {
			t.Errorf("%q: %v", text, err)
		}
	}
}

func pixels(t testing.TB) picture.Picture {
	t.Helper()
	var data bytes.Buffer
	if err := png.Encode(&data, image.NewNRGBA(image.Rect(0, 0, 12, 8))); err != nil {
		t.Fatal(err)
	}
	return picture.Picture{Type: "image/png", Data: data.Bytes(), Width: 12, Height: 8}
}

func board() lesson.Board {
	f := lesson.Frame{ID: "f", Title: "Half moon", Paper: paper.Paper{Kind: paper.Picture, Picture: "p1"},
		Arrangement: lesson.Individual, Permission: lesson.Add, Notes: "first",
		Prepared: []lesson.Element{{ID: "n", X: 10, Y: 10, W: 100, H: 60, Z: 1, Layer: lesson.Supply, Tray: true,
			Body: lesson.Body{Kind: lesson.KindNote, Note: &lesson.Note{Text: "lit", Tint: "moss"}}}}}
	return lesson.Board{Title: "Tides", Objectives: []lesson.Objective{{ID: "o", Text: "say when"}},
		Frames: []lesson.Frame{f}}
}

// A board that is written and read again is exactly the same.
func TestBoardFileIsExact(t *testing.T) {
	var file bytes.Buffer
	want := formats.File{Board: board(), Pictures: map[string]picture.Picture{"p1": pixels(t)}}
	if err := formats.WriteBoard(&file, want); err != nil {
		t.Fatal(err)
	}
	got, err := formats.ReadBoard(file.Bytes(), picture.Read)
	if err != nil || !reflect.DeepEqual(got.Board, want.Board) || got.Pictures["p1"].Width != 12 {
		t.Errorf("%+v, %v", got, err)
	}
}

type entry struct {
	name string
	data []byte
}

func archive(t testing.TB, entries ...entry) []byte {
	t.Helper()
	var file bytes.Buffer
	w := zip.NewWriter(&file)
	for _, e := range entries {
		f, err := w.Create(e.name)
		if err == nil {
			_, err = f.Write(e.data)
		}
		if err != nil {
			t.Fatal(err)
		}
	}
	if err := w.Close(); err != nil {
		t.Fatal(err)
	}
	return file.Bytes()
}

func TestBadBoardFiles(t *testing.T) {
	inner, _ := json.Marshal(board())
	head := func(version int, inner []byte) []byte {
		text, _ := json.Marshal(map[string]any{"format": "alpenglow-board", "version": version,
			"board": json.RawMessage(inner)})
		return text
	}
	tricked := bytes.Replace(inner, []byte(`"p1"`), []byte(`"../../etc/passwd"`), 1)
	whole := archive(t, entry{"board.json", head(1, inner)}, entry{"pictures/p1.png", pixels(t).Data})
	for name, c := range map[string]struct {
		data []byte
		want refusal.Code
	}{
		"no zip":                    {[]byte("PK\x03\x04 and nothing"), refusal.FileUnreadable},
		"cut off in the middle":     {whole[:len(whole)/2], refusal.FileUnreadable},
		"without a board":           {archive(t, entry{"other.json", inner}), refusal.FileUnreadable},
		"a board in a folder above": {archive(t, entry{"../board.json", head(1, inner)}), refusal.FileUnreadable},
		"of a newer version": {archive(t, entry{"board.json", head(formats.BoardVersion+1, inner)}),
			refusal.FileNewer},
		"of no version": {archive(t, entry{"board.json", head(0, inner)}), refusal.FileUnreadable},
		"with a field it does not know": {archive(t,
			entry{"board.json", head(1, []byte(`{"title":"x","frames":[],"secret":1}`))}), refusal.FileUnreadable},
		"without frames": {archive(t, entry{"board.json", head(1, []byte(`{"title":"x","frames":[]}`))}),
			refusal.BoardIncorrect},
		"of the wrong types": {archive(t,
			entry{"board.json", head(1, []byte(`{"title":5,"frames":"all"}`))}), refusal.FileUnreadable},
		"without its picture": {archive(t, entry{"board.json", head(1, inner)}), refusal.FileUnreadable},
		"a picture that is none": {archive(t, entry{"board.json", head(1, inner)},
			entry{"pictures/p1.png", []byte("text")}), refusal.PictureBad},
		"a picture outside the folder": {archive(t, entry{"board.json", head(1, tricked)},
			entry{"../../etc/passwd", pixels(t).Data}), refusal.NoSuchPicture},
		"a bomb": {archive(t, entry{"board.json", bytes.Repeat([]byte(" "), 24<<20)}),
			refusal.FileHuge},
		"a picture that is a bomb": {archive(t, entry{"board.json", head(1, inner)},
			entry{"pictures/p1.png", make([]byte, 24<<20)}), refusal.FileHuge},
	} {
		if _, err := formats.ReadBoard(c.data, picture.Read); refusal.Of(err) == nil || refusal.Of(err).Code != c.want {
			t.Errorf("%s: %v, want %s", name, err, c.want)
		}
	}
}

const namespaces = `xmlns:a="http://schemas.openxmlformats.org/drawingml/2006/main" xmlns:p="http://schemas.openxmlformats.org/presentationml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"`

func relations(pairs ...string) []byte {
	text := `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">`
	for i := 0; i < len(pairs); i += 3 {
		text += `<Relationship Id="` + pairs[i] +
			`" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/` + pairs[i+1] + `" Target="` +
			pairs[i+2] + `"/>`
	}
	return []byte(text + `</Relationships>`)
}

// deck is a presentation of slides, each with what is in its shape tree.
func deck(t testing.TB, slides ...string) []byte {
	t.Helper()
	list, links, entries := "", []string{}, []entry{}
	for i, s := range slides {
		n := strconv.Itoa(i + 1)
		list += `<p:sldId id="25` + n + `" r:id="rId` + n + `"/>`
		links = append(links, "rId"+n, "slide", "slides/slide"+n+".xml")
		entries = append(entries, entry{"ppt/slides/slide" + n + ".xml",
			[]byte(`<p:sld ` + namespaces + `><p:cSld><p:spTree>` + s + `</p:spTree></p:cSld></p:sld>`)},
			entry{"ppt/slides/_rels/slide" + n + ".xml.rels",
				relations("rIdP", "image", "../media/image1.png", "rIdL", "slideLayout",
					"../slideLayouts/slideLayout1.xml")})
	}
	entries = append(entries, entry{"ppt/presentation.xml",
		[]byte(`<p:presentation ` + namespaces + `><p:sldIdLst>` + list +
			`</p:sldIdLst><p:sldSz cx="16000000" cy="10000000"/></p:presentation>`)},
		entry{"ppt/_rels/presentation.xml.rels", relations(links...)}, entry{"ppt/media/image1.png", pixels(t).Data},
		entry{"ppt/slideLayouts/slideLayout1.xml",
			[]byte(`<p:sldLayout ` + namespaces +
				`><p:cSld><p:spTree><p:sp><p:nvSpPr><p:nvPr><p:ph type="title"/></p:nvPr></p:nvSpPr><p:spPr><a:xfrm><a:off x="500000" y="400000"/><a:ext cx="12000000" cy="1000000"/></a:xfrm></p:spPr></p:sp></p:spTree></p:cSld></p:sldLayout>`)})
	return archive(t, entries...)
}

const place = `<a:xfrm><a:off x="1000000" y="2000000"/><a:ext cx="4000000" cy="1000000"/></a:xfrm>`

// A file that was written before questions had kinds is read as what it was.
func TestOlderBoardFile(t *testing.T) {
	inner := `{"title":"Moon","objectives":[],"frames":[{"id":"f","title":"","prompt":"","paper":{"kind":"plain"},
		"arrangement":"class","permission":"add","prepared":[
		{"id":"p","z":123456,"at":0,"x":1,"y":1,"w":99,"h":99,"kind":"poll","poll":{"text":"How long?","choices":[
			{"id":"a","text":"7 days"},{"id":"b","text":"29.53 days","right":true}]}},
		{"id":"n","z":2,"at":0,"x":1,"y":1,"w":99,"h":99,"kind":"note","note":{"text":"\"choices\"","tint":"moss"}}]}]}`
	for version, want := range map[int]bool{1: true, 2: false} {
		text, _ := json.Marshal(map[string]any{"format": "alpenglow-board", "version": version,
			"board": json.RawMessage(inner)})
		f, err := formats.ReadBoard(archive(t, entry{"board.json", text}), picture.Read)
		if (err == nil) != want {
			t.Errorf("version %d: %v", version, err)
		}
		if err != nil {
			continue
		}
		p := f.Board.Frames[0].Prepared[0]
		if p.Z != 123456 || p.Poll.Judge(poll.Choose("b")).Verdict != poll.Right || p.Poll.Text != "How long?" {
			t.Errorf("%+v", p)
		}
	}
}

// A slide of 16,000,000 x 10,000,000 units lies on the frame at a
// ten-thousandth of its size.
func TestSlides(t *testing.T) {
	title := `<p:sp><p:nvSpPr><p:nvPr><p:ph type="ctrTitle"/></p:nvPr></p:nvSpPr><p:spPr/><p:txBody><a:p><a:r><a:t>Why two </a:t></a:r><a:r><a:t>high tides?</a:t></a:r></a:p></p:txBody></p:sp>`
	text := `<p:sp><p:nvSpPr><p:cNvSpPr txBox="1"/><p:nvPr/></p:nvSpPr><p:spPr>` + place +
		`</p:spPr><p:txBody><a:p><a:r><a:rPr sz="2000"/><a:t>one side</a:t></a:r></a:p><a:p><a:r><a:t>the other</a:t></a:r></a:p></p:txBody></p:sp>`
	box := `<p:grpSp><p:grpSpPr><a:xfrm><a:off x="8000000" y="0"/><a:ext cx="2000000" cy="2000000"/><a:chOff x="0" y="0"/><a:chExt cx="4000000" cy="4000000"/></a:xfrm></p:grpSpPr>` +
		`<p:sp><p:nvSpPr><p:nvPr/></p:nvSpPr><p:spPr><a:xfrm rot="5400000"><a:off x="2000000" y="2000000"/><a:ext cx="2000000" cy="1000000"/></a:xfrm><a:prstGeom prst="ellipse"/><a:solidFill><a:srgbClr val="CCE8F0"/></a:solidFill></p:spPr></p:sp></p:grpSp>`
	pic := `<p:pic><p:nvPicPr><p:cNvPr descr="the harbour"/><p:nvPr/></p:nvPicPr><p:blipFill><a:blip r:embed="rIdP"/></p:blipFill><p:spPr>` + place + `</p:spPr></p:pic>`
	chart := `<p:graphicFrame><p:xfrm><a:off x="0" y="0"/><a:ext cx="900000" cy="900000"/></p:xfrm><a:graphic><a:graphicData><c:chart xmlns:c="c"/></a:graphicData></a:graphic></p:graphicFrame>`
	d, err := formats.OpenDeck(deck(t, title+text+box+pic+chart, `<p:sp><broken`))
	if err != nil || d.Len() != 2 {
		t.Fatal(d, err)
	}
	n := 0
	id := func() string { n++; return "id" + strconv.Itoa(n) }
	slide, err := d.Slide(0, id)
	if err != nil || slide.Failed || slide.Frame.Title != "Why two high tides?" ||
		!slices.Equal(slide.Left, []string{"chart"}) {
		t.Fatalf("%+v, %v", slide, err)
	}
	marks := slide.Frame.Prepared
	if len(marks) != 4 {
		t.Fatalf("%d marks", len(marks))
	}
	if m := marks[0]; m.X != 50 || m.Y != 40 || m.W != 1200 || m.Text == nil {
		t.Errorf("the title, placed by its layout: %+v", m)
	}
	if m := marks[1]; m.X != 100 || m.Y != 200 || m.W != 400 || m.Text.Text != "one side\nthe other" ||
		m.Text.Size != 25 {
		t.Errorf("the text: %+v %+v", m, m.Text)
	}
	if m := marks[2]; m.X != 900 || m.Y != 100 || m.W != 100 || m.H != 50 || m.Turn != 90 ||
		m.Shape.Form != lesson.FormEllipse || m.Shape.Fill != "glacier" {
		t.Errorf("the ellipse in a group of half size: %+v %+v", m, m.Shape)
	}
	if m := marks[3]; m.Picture == nil || m.Picture.Alt != "the harbour" || m.Picture.Picture != "picture-0" {
		t.Errorf("the picture: %+v", m)
	}
	if data, err := d.Picture("picture-0"); err != nil || len(data) == 0 {
		t.Errorf("its bytes: %d, %v", len(data), err)
	}
	if _, err := d.Picture("picture-7"); refusal.Of(err) == nil {
		t.Errorf("a picture that no slide names: %v", err)
	}
	if broken, err := d.Slide(1, id); err != nil || !broken.Failed {
		t.Errorf("a broken slide: %+v, %v", broken, err)
	}
}

// Slides that were converted say of none of their texts that it is the title,
// and of each line that it is one of a list.
func TestConvertedSlides(t *testing.T) {
	box := func(y int, size, paragraphs string) string {
		return fmt.Sprintf(`<p:sp><p:nvSpPr><p:cNvSpPr txBox="1"/><p:nvPr/></p:nvSpPr><p:spPr><a:xfrm>`+
			`<a:off x="1000000" y="%d"/><a:ext cx="4000000" cy="1000000"/></a:xfrm></p:spPr><p:txBody>%s</p:txBody></p:sp>`,
			y, strings.ReplaceAll(paragraphs, "<a:t>", `<a:rPr sz="`+size+`"/><a:t>`))
	}
	line := func(sign, text string) string {
		return `<a:p><a:pPr>` + sign + `</a:pPr><a:r><a:t>` + text + `</a:t></a:r></a:p>`
	}
	const dot, number = `<a:buChar char="●"/>`, `<a:buAutoNum type="arabicPeriod"/>`
	list := line(dot, "the near side") + line(dot, "the far side")
	for _, c := range []struct{ name, slide, title, text, list string }{
		{"the highest", box(5000000, "1800", list) + box(500000, "1800", line("", "Why two high tides?")),
			"Why two high tides?", "the near side\nthe far side", "bullets"},
		{"not where other letters are larger", box(500000, "1200", line("", "8 Juniper")) + box(3000000, "4000", list),
			"", "the near side\nthe far side", "bullets"},
		{"not far down", box(4000000, "1800", line("", "Why?")) + box(6000000, "1800", list), "",
			"the near side\nthe far side", "bullets"},
		{"no list is a title", box(500000, "1800", list), "", "the near side\nthe far side", "bullets"},
		{"numbers", box(5000000, "1800", line(number, "ebb")+line(number, "flood")), "", "ebb\nflood", "numbers"},
		{"a list with words before it", box(5000000, "1800", line("", "Two:")+list), "",
			"Two:\n• the near side\n• the far side", ""},
	} {
		d, err := formats.OpenDeck(deck(t, c.slide))
		if err != nil {
			t.Fatal(err)
		}
		n := 0
		slide, err := d.Slide(0, func() string { n++; return "id" + strconv.Itoa(n) })
		if err != nil || slide.Failed || slide.Frame.Title != c.title {
			t.Errorf("%s: %q, %+v, %v", c.name, slide.Frame.Title, slide, err)
			continue
		}
		if !slices.ContainsFunc(slide.Frame.Prepared, func(m lesson.Element) bool {
			return m.Text != nil && m.Text.Text == c.text && string(m.Text.List) == c.list
		}) {
			t.Errorf("%s: no %q as %q", c.name, c.text, c.list)
		}
	}
}

func TestBadDecks(t *testing.T) {
	nested := strings.Repeat("<p:grpSp>", 500) + strings.Repeat("</p:grpSp>", 500)
	entity := []byte(`<!DOCTYPE x [<!ENTITY a "aaaaaaaaaa">]><p:presentation ` + namespaces + `>&a;</p:presentation>`)
	for name, data := range map[string][]byte{
		"no zip":          []byte("PK"),
		"no presentation": archive(t, entry{"word/document.xml", []byte("<x/>")}),
		"entities":        archive(t, entry{"ppt/presentation.xml", entity}),
		"no slides":       archive(t, entry{"ppt/presentation.xml", []byte(`<p:presentation ` + namespaces + `/>`)}),
		"a bomb":          archive(t, entry{"ppt/presentation.xml", bytes.Repeat([]byte(" "), 24<<20)}),
	} {
		if _, err := formats.OpenDeck(data); refusal.Of(err) == nil {
			t.Errorf("%s: %v", name, err)
		}
	}
	d, err := formats.OpenDeck(deck(t, nested))
	if err != nil {
		t.Fatal(err)
	}
	if s, err := d.Slide(0, func() string { return "x" }); err == nil && !s.Failed {
		t.Error("a slide nested 500 deep was read")
	}
}

// Whatever bytes arrive, they are read or refused.
func FuzzFiles(f *testing.F) {
	f.Add(deck(f, "<p:sp/>"))
	f.Add(archive(f, entry{"board.json", []byte(`{"format":"alpenglow-board","version":1,"board":{}}`)}))
	f.Add([]byte("a;b\nc"))
	f.Fuzz(func(t *testing.T, data []byte) {
		for _, err := range []error{second(formats.ReadBoard(data, picture.Read)), second(formats.OpenDeck(data)),
			second(formats.Lines(data))} {
			if err != nil && refusal.Of(err) == nil {
				t.Fatal(err)
			}
		}
	})
}

func second[A any](_ A, err error) error { return err }
