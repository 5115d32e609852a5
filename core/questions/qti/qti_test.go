package qti_test

import (
	"archive/zip"
	"bytes"
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"alpenglow/core/number"
	"alpenglow/core/picture"
	"alpenglow/core/poll"
	"alpenglow/core/questions"
	"alpenglow/core/questions/qti"
	"alpenglow/core/questions/sample"
	"alpenglow/core/refusal"
)

func ids() func() string {
	n := 0
	return func() string { n++; return fmt.Sprint("new", n) }
}

// held gives a question without what no item can hold.
func held(q poll.Question) poll.Question {
	q.Sure, q.Seconds, q.Link = false, 0, ""
	bare := func(all []poll.Option) []poll.Option {
		all = slices.Clone(all)
		for i := range all {
			all[i].Mistake = ""
		}
		return all
	}
	plain := func(text string) string { return text }
	switch b := q.Body; b.Kind {
	case poll.KindChoice:
		q.Choice = &poll.Choice{Options: bare(b.Choice.Options)}
	case poll.KindSeveral:
		q.Several = &poll.Several{Options: bare(b.Several.Options)}
	case poll.KindTruth:
		q.Truth = &poll.Truth{Is: b.Truth.Is, NotSure: b.Truth.NotSure}
	case poll.KindNumber:
		n := *b.Number
		n.Unit, n.UnitRule, n.Mistakes = "", "", nil
		q.Number, q.Shuffle = &n, false
	case poll.KindShort:
		q.Short, q.Shuffle = &poll.Short{Accepted: b.Short.Accepted, WithCase: b.Short.WithCase}, false
	case poll.KindScale:
		q.Scale, q.Shuffle = &poll.Scale{Steps: b.Scale.Steps}, false
	case poll.KindOrder:
		q.Order = &poll.Order{Options: b.Order.Options}
	case poll.KindBlanks:
		x := &poll.Blanks{}
		for _, p := range b.Blanks.Parts {
			if p.Blank != nil {
				p.Blank = &poll.Blank{ID: p.Blank.ID, Accepted: p.Blank.Accepted, Offered: p.Blank.Offered}
			}
			x.Parts = append(x.Parts, poll.TextPart{Text: plain(p.Text), Blank: p.Blank})
		}
		q.Blanks, q.Shuffle = x, false
	case poll.KindPlaces:
		x := *b.Places
		x.Areas = slices.Clone(x.Areas)
		for i := range x.Areas {
			x.Areas[i].Name = ""
		}
		q.Places, q.Shuffle = &x, false
	case poll.KindOpen, poll.KindDraw:
		q.Shuffle = false
	}
	return q
}

// Whatever the words are: what is written in either version is read back as the same question
// but for what is said to be lost, and every document is well formed.
func TestThereAndBack(t *testing.T) {
	m := &sample.Maker{Chance: rand.New(rand.NewPCG(31, 32))}
	image := picture.Picture{Type: "image/png", Data: []byte("a picture"), Width: 1000, Height: 500}
	for n := range 2800 {
		asked := m.Question(sample.Kinds[n%len(sample.Kinds)])
		version := []qti.Version{qti.V3, qti.V21}[n%2]
		var file bytes.Buffer
		told, err := qti.Write(&file, questions.Sheet{Title: "a & b", Items: []questions.Item{{Asked: asked}}}, version,
			map[string]picture.Picture{"picture": image})
		if err != nil {
			t.Fatal(err)
		}
		if !qti.Is(file.Bytes()) {
			t.Fatal("it does not know its own")
		}
		wellFormed(t, file.Bytes())
		back, err := qti.Read(file.Bytes(), "en", ids())
		if err != nil || back.Title != "a & b" || len(back.Items) != 1 || back.Items[0].Failed != nil {
			t.Fatalf("%v: %+v\n%+v", err, back, asked)
		}
		got := back.Items[0].Asked.WithPictures(func(string) string { return "picture" })
		want := held(asked)
		if lost := told[0].Lost; sample.Plain(want) != sample.Plain(asked) && len(lost) == 0 {
			t.Fatalf("lost and not told: %s", sample.Plain(asked))
		}
		if sample.Plain(got) != sample.Plain(want) {
			t.Fatalf("%s:\n%s\n%s", version, sample.Plain(want), sample.Plain(got))
		}
		if asked.Kind == poll.KindPlaces && string(back.Pictures[back.Items[0].Asked.Places.Picture]) != "a picture" {
			t.Fatal("the picture is not there")
		}
	}
}

func wellFormed(t *testing.T, file []byte) {
	t.Helper()
	archive, err := zip.NewReader(bytes.NewReader(file), int64(len(file)))
	if err != nil {
		t.Fatal(err)
	}
	for _, f := range archive.File {
		if !strings.HasSuffix(f.Name, ".xml") {
			continue
		}
		r, err := f.Open()
		if err != nil {
			t.Fatal(err)
		}
		for d := xml.NewDecoder(r); ; {
			if _, err := d.Token(); errors.Is(err, io.EOF) {
				break
			} else if err != nil {
				t.Fatalf("%s: %v", f.Name, err)
			}
		}
	}
}

// The structure of an item, in both versions; names are from memory of the standard.
func TestStructure(t *testing.T) {
	q := poll.Question{
		Text: "How far?",
		Why:  "because",
		Body: poll.Body{Kind: poll.KindNumber, Number: &poll.Number{Language: "de",
			Answer: "12,5", Tolerance: number.Tolerance{Is: number.Relative, Below: "2", Above: "3"}}},
	}
	for version, want := range map[qti.Version][]string{
		qti.V21: {`<assessmentItem xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1"`,
			`<responseDeclaration identifier="RESPONSE"`,
			`baseType="float"`, `<value>12.5</value>`, `<equal toleranceMode="relative" tolerance="2 3"`,
			`<textEntryInteraction `,
			`<modalFeedback outcomeIdentifier="FEEDBACK"`},
		qti.V3: {`<qti-assessment-item xmlns="http://www.imsglobal.org/xsd/imsqtiasi_v3p0"`,
			`<qti-response-declaration identifier="RESPONSE"`,
			`base-type="float"`, `<qti-value>12.5</qti-value>`, `<qti-equal tolerance-mode="relative" tolerance="2 3"`,
			`<qti-text-entry-interaction response-identifier="RESPONSE"/>`, `<qti-content-body><p>because</p>`},
	} {
		var file bytes.Buffer
		if _, err := qti.Write(&file, questions.Sheet{Items: []questions.Item{{Asked: q}}}, version, nil); err != nil {
			t.Fatal(err)
		}
		archive, _ := zip.NewReader(bytes.NewReader(file.Bytes()), int64(file.Len()))
		r, err := archive.Open("items/q1.xml")
		if err != nil {
			t.Fatal(err)
		}
		text, _ := io.ReadAll(r)
		for _, w := range want {
			if !strings.Contains(string(text), w) {
				t.Errorf("%s: no %s in\n%s", version, w, text)
			}
		}
	}
}

// What is heard is said to be lost, and is not in the package as a picture.
func TestSoundIsNoPicture(t *testing.T) {
	q := poll.Question{Text: "Which bird?", Sound: "heard", Body: poll.Body{Kind: poll.KindOpen, Open: &poll.Free{}}}
	var file bytes.Buffer
	told, err := qti.Write(&file, questions.Sheet{Items: []questions.Item{{Asked: q}}}, qti.V3,
		map[string]picture.Picture{"heard": {Type: "audio/wav", Data: []byte("RIFF")}})
	if err != nil || !slices.Contains(told[0].Lost, questions.LossMedia) {
		t.Fatalf("%v: %+v", err, told)
	}
	archive, err := zip.NewReader(bytes.NewReader(file.Bytes()), int64(file.Len()))
	if err != nil {
		t.Fatal(err)
	}
	for _, f := range archive.File {
		if strings.HasPrefix(f.Name, "pictures/") {
			t.Errorf("%s is in the package", f.Name)
		}
	}
}

const head = `<?xml version="1.0"?><assessmentItem xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="x" title="x">`

// choice is an item in which somebody else wrote.
func choice(more string) string {
	return head + `<responseDeclaration identifier="R" cardinality="single" baseType="identifier"><correctResponse><value>B</value></correctResponse>
  </responseDeclaration><itemBody>` + more + `
  <p>Read <b>this</b> first.</p><choiceInteraction responseIdentifier="R" shuffle="true" maxChoices="1"><prompt>Which?</prompt>
  <simpleChoice identifier="A">one</simpleChoice><simpleChoice identifier="B"> the
     other </simpleChoice></choiceInteraction></itemBody></assessmentItem>`
}

func TestOthers(t *testing.T) {
	read := func(text string) (questions.Item, error) {
		p, err := qti.Read([]byte(text), "de", ids())
		if err != nil {
			return questions.Item{}, err
		}
		return p.Items[0], nil
	}
	i, err := read(
		choice(
			`<rubricBlock view="scorer"><p>B is right</p></rubricBlock><script>alert(1)</script><p onclick="x()"><img src="javascript:x" alt="a tide"/></p>`,
		),
	)
	if err != nil || i.Failed != nil || i.Asked.Text != "Read this first.\nWhich?" || !i.Asked.Shuffle ||
		i.Asked.Choice.Options[1].Text != "the other" || !i.Asked.Choice.Options[1].Right ||
		i.Asked.Choice.Options[0].Right {
		t.Errorf("%v: %+v", err, i)
	}
	if !slices.Contains(i.Lost, questions.LossMarkup) || strings.Contains(fmt.Sprint(i.Asked), "alert") ||
		strings.Contains(i.Asked.Text, "right") {
		t.Errorf("%+v", i)
	}
	number := head + `<responseDeclaration identifier="R" cardinality="single" baseType="float"><correctResponse><value>1.5</value></correctResponse>
 </responseDeclaration><itemBody><p>How many?</p><p>About <textEntryInteraction responseIdentifier="R"/> m</p></itemBody></assessmentItem>`
	if i, err = read(number); err != nil || i.Failed != nil || i.Asked.Number.Answer != "1,5" ||
		i.Asked.Number.Language != "de" {
		t.Errorf("%v: %+v", err, i)
	}
	blanks := head + `<responseDeclaration identifier="R" cardinality="single" baseType="string"><correctResponse><value>Moon</value></correctResponse>
 </responseDeclaration><itemBody><p>Fill in.</p><blockquote><p>The <textEntryInteraction responseIdentifier="R"/> pulls.</p></blockquote></itemBody></assessmentItem>`
	if i, err = read(blanks); err != nil || i.Failed != nil || i.Asked.Blanks == nil || i.Asked.Text != "Fill in." ||
		i.Asked.Blanks.Parts[0].Text != "The " || i.Asked.Blanks.Parts[2].Text != " pulls." {
		t.Errorf("%v: %+v", err, i)
	}
	for name, text := range map[string]string{
		"an interaction that nobody knows": head + `<itemBody><customInteraction responseIdentifier="R"/></itemBody></assessmentItem>`,
		"two of them":                      head + `<itemBody><extendedTextInteraction/><extendedTextInteraction/></itemBody></assessmentItem>`,
		"nothing to do":                    head + `<itemBody><p>Hello</p></itemBody></assessmentItem>`,
		"nothing at all":                   head + `</assessmentItem>`,
		"no item":                          `<manifest/>`,
		"a choice of one":                  head + `<itemBody><choiceInteraction responseIdentifier="R"><simpleChoice identifier="A">a</simpleChoice></choiceInteraction></itemBody></assessmentItem>`,
		"more to fill in than there can be": head + `<itemBody><p>` +
			strings.Repeat(`<textEntryInteraction responseIdentifier="R"/>`, 50_000) +
			`</p></itemBody></assessmentItem>`,
		"more to choose from than there can be": head +
			`<responseDeclaration identifier="R" cardinality="multiple" baseType="identifier"><correctResponse>` +
			strings.Repeat(`<value>a</value>`, 60_000) + `</correctResponse></responseDeclaration><itemBody>` +
			`<choiceInteraction responseIdentifier="R">` + strings.Repeat(`<simpleChoice identifier="a"/>`, 60_000) +
			`</choiceInteraction></itemBody></assessmentItem>`,
		"a match without its sides": head + `<itemBody><matchInteraction responseIdentifier="R"/></itemBody></assessmentItem>`,
		"an endless scale":          head + `<itemBody><sliderInteraction responseIdentifier="R" lowerBound="1" upperBound="1e11" step="1"/></itemBody></assessmentItem>`,
		"boxes without boxes":       head + `<itemBody><matchInteraction class="boxes"><simpleMatchSet><simpleAssociableChoice identifier="a"/></simpleMatchSet><simpleMatchSet/></matchInteraction></itemBody></assessmentItem>`,
	} {
		if i, err := read(text); err != nil || refusal.Of(i.Failed) == nil {
			t.Errorf("%s: %v, %+v", name, err, i)
		}
	}
	for name, text := range map[string]string{
		"an entity from outside": `<?xml version="1.0"?><!DOCTYPE a [<!ENTITY x SYSTEM "file:///etc/passwd">]><assessmentItem>&x;</assessmentItem>`,
		"entities of entities":   `<!DOCTYPE a [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;">]><assessmentItem>&b;</assessmentItem>`,
		"an unknown entity":      head + `<itemBody>&nbsp;</itemBody></assessmentItem>`,
		"broken":                 head + `<itemBody>`,
		"too deep":               head + strings.Repeat("<p>", 200) + strings.Repeat("</p>", 200) + `</assessmentItem>`,
	} {
		if i, err := read(text); refusal.Of(err) == nil {
			t.Errorf("%s: %+v", name, i)
		}
	}
}

func pack(files map[string]string) []byte {
	var file bytes.Buffer
	z := zip.NewWriter(&file)
	for name, text := range files {
		w, _ := z.Create(name)
		_, _ = io.WriteString(w, text)
	}
	_ = z.Close()
	return file.Bytes()
}

func TestPackages(t *testing.T) {
	manifest := func(hrefs ...string) string {
		text := `<manifest><resources>`
		for _, h := range hrefs {
			text += `<resource type="imsqti_item_xmlv2p1" href="` + h + `"/>`
		}
		return text + `</resources></manifest>`
	}
	p, err := qti.Read(
		pack(map[string]string{"imsmanifest.xml": manifest("a.xml", "gone.xml", "../../etc/passwd", "bad.xml"),
			"a.xml": choice(`<img src="../../secret.png" alt=""/>`), "bad.xml": "<"}),
		"en",
		ids(),
	)
	if err != nil || len(p.Items) != 4 || p.Items[0].Failed != nil || p.Items[1].Failed == nil ||
		p.Items[2].Failed == nil ||
		p.Items[3].Failed == nil ||
		len(p.Pictures) != 0 ||
		!slices.Contains(p.Items[0].Lost, questions.LossPicture) {
		t.Errorf("%v: %+v", err, p)
	}
	for name, data := range map[string][]byte{
		"a bomb": pack(map[string]string{"imsmanifest.xml": manifest("a.xml"),
			"a.xml": head + strings.Repeat(" ", 5<<20) + `</assessmentItem>`}),
		"no manifest":    pack(map[string]string{"a.xml": "x"}),
		"no zip":         []byte("PK\x03\x04imsmanifest.xml"),
		"many questions": pack(map[string]string{"imsmanifest.xml": manifest(make([]string, questions.MaxItems+1)...)}),
	} {
		if p, err := qti.Read(data, "en", ids()); refusal.Of(err) == nil {
			t.Errorf("%s: %v, %d items", name, err, len(p.Items))
		}
	}
}

func FuzzRead(f *testing.F) {
	f.Add(choice(""))
	f.Add(head + `<itemBody><p><textEntryInteraction responseIdentifier="R"/></p></itemBody></assessmentItem>`)
	f.Add(
		head + `<itemBody><hotspotInteraction maxChoices="1"><object data="x" width="10" height="10"/><hotspotChoice shape="circle" coords="1,1,1" identifier="a"/></hotspotInteraction></itemBody></assessmentItem>`,
	)
	f.Fuzz(func(t *testing.T, text string) {
		p, err := qti.Read([]byte(text), "en", ids())
		if err != nil && refusal.Of(err) == nil {
			t.Fatal(err)
		}
		for _, i := range p.Items {
			if i.Failed == nil && i.Asked.Check() != nil {
				t.Fatalf("%+v", i.Asked)
			}
		}
	})
}
