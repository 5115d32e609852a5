package lesson_test

import (
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"alpenglow/core/agreed"
	"alpenglow/core/lesson"
)

// words of the languages that a class may write in: about the Moon and tides.
var words = map[string][]string{
	"latin": strings.Fields(
		"The high tide comes about fifty minutes later every day, because Moon's way round Earth takes " +
			"29.53 days; tide-table harbour “spring” tides (twice a month) — À marée haute, l’eau déborde. Où? Größer " +
			"Überflutung żółw čas năm nước thủy triều AVATAR To Ty fi ffl 12:40 3.9 m ½ naïve",
	),
	"cyrillic": strings.Fields(
		"Прилив наступает каждый день примерно на пятьдесят минут позже, потому что Луна движется. Отлив! Вода",
	),
	"greek": strings.Fields(
		"Η παλίρροια έρχεται κάθε μέρα περίπου πενήντα λεπτά αργότερα, γιατί η Σελήνη κινείται.",
	),
	"arabic": strings.Fields(
		"المدّ العالي يتأخر كل يوم نحو خمسين دقيقة، لأن القمر يتحرك حول الأرض. مرتين في اليوم؟ الماء ١٢ ساعة",
	),
	"hebrew": strings.Fields("הגאות מתאחרת בכל יום בכחמישים דקות, כי הירח נע סביב כדור הארץ. פעמיים ביום"),
	"devanagari": strings.Fields(
		"ज्वार हर दिन लगभग पचास मिनट देर से आता है, क्योंकि चंद्रमा पृथ्वी के चारों ओर घूमता है। दो बार पानी श्रृंखला",
	),
	"long": strings.Fields("Tidenhubunterschiedsberechnungstabelle hoogwaterstandverwachtingsoverzicht " +
		"aaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaa https://tern-harbour.example/moon-and-tides/tables?day=29 no"),
	"emoji": strings.Fields("🌕 🌑 moon 🌊 high 🧑‍🚀 👍🏽 🇺🇦 🐟🐟🐟 tide 🙂! ok"),
}

var chinese = []rune("满月和新月时潮水涨得最高，因为月亮、太阳和地球在一条线上。每天两次高潮")

// some gives a text of a language, seldom over several lines.
func some(r *rand.Rand, language string) string {
	if language == "chinese" {
		text := make([]rune, 4+r.IntN(60))
		for i := range text {
			text[i] = chinese[r.IntN(len(chinese))]
		}
		return string(text)
	}
	var b strings.Builder
	for i := range 1 + r.IntN(18) {
		if i > 0 {
			b.WriteString([]string{" ", " ", " ", " ", " ", " ", "  ", "\n"}[r.IntN(8)])
		}
		b.WriteString(words[language][r.IntN(len(words[language]))])
	}
	text := []rune(b.String())
	return strings.TrimSpace(string(text[:min(len(text), lesson.MaxNote)]))
}

// Core and browser come to the same heights: the browser's tests hold what is on
// the screen against this file. UPDATE=1 go test ./core/lesson writes it anew.
func TestHeightsForTheInterface(t *testing.T) {
	r := rand.New(rand.NewPCG(29, 53))
	type tall struct {
		Language string         `json:"language"`
		Mark     lesson.Element `json:"mark"`
		// Tall is how high it stands, or the words inside a shape; Line how high a line is.
		Tall float64 `json:"tall"`
		Line float64 `json:"line"`
	}
	var cases []tall
	note := func(language string) {
		text := some(r, language)
		size := []float64{0, 20, 28, 40}[r.IntN(4)]
		e := lesson.Element{W: float64(180 + 10*r.IntN(40)), H: 60,
			Body: lesson.Body{Kind: lesson.KindNote, Note: &lesson.Note{Text: text, Tint: "moss", Size: size}}}
		if size == 0 {
			size = 28
		}
		cases = append(cases, tall{language, e, e.Tall(), size * 1.35})
	}
	text := func(language string) {
		size := float64(18 + 2*r.IntN(20))
		e := lesson.Element{W: float64(240 + 10*r.IntN(60)), H: 20, Body: lesson.Body{Kind: lesson.KindText,
			Text: &lesson.Text{Text: some(r, language), Size: size, Ink: "night", Bold: r.IntN(3) == 0,
				List: []lesson.List{lesson.ListNone, lesson.ListNone, lesson.ListBullets,
					lesson.ListNumbers}[r.IntN(4)]}}}
		cases = append(cases, tall{language, e, e.Tall(), size * 1.35})
	}
	for _, language := range []string{"latin", "latin", "latin", "arabic", "arabic", "devanagari", "devanagari",
		"chinese",
		"emoji", "long", "long", "cyrillic", "greek", "hebrew"} {
		for range 18 {
			note(language)
			text(language)
		}
	}
	for _, form := range lesson.Forms[:7] {
		for _, language := range []string{"latin", "arabic", "devanagari"} {
			e := lesson.Element{W: 420, H: 300, Body: lesson.Body{Kind: lesson.KindShape,
				Shape: &lesson.Shape{Form: form, Ink: "night", Width: 4, Text: some(r, language)}}}
			_, inside := e.Shape.Inside(e.W, e.H)
			cases = append(cases, tall{language, e, inside, 28 * 1.35})
		}
	}
	for range 20 {
		rows := make([][]string, 2+r.IntN(3))
		for y := range rows {
			rows[y] = []string{some(r, "latin"), "", some(r, "devanagari")}
		}
		e := lesson.Element{
			W:    1000,
			H:    100,
			Body: lesson.Body{Kind: lesson.KindTable, Table: &lesson.Table{Rows: rows}},
		}
		cases = append(cases, tall{"table", e, e.Tall(), 28 * 1.4})
	}
	// Where hundreds are looked at, about is enough: a sixth, or two lines.
	for _, c := range cases {
		if c.Mark.Kind == lesson.KindShape {
			continue
		}
		about := c.Mark.LiesAbout().H - (c.Mark.Covers().H - c.Tall)
		if off := math.Abs(about - c.Tall); off > 2.01*c.Line && off > c.Tall/6 {
			t.Errorf("%s: about %.0f high, is %.0f: %.80q", c.Language, about, c.Tall, c.Mark.Says())
		}
	}
	agreed.Holds(t, "testdata/heights.json", cases)
}
