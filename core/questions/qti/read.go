package qti

import (
	"archive/zip"
	"bytes"
	"io"
	"path"
	"slices"
	"strings"

	"alpenglow/core/poll"
	"alpenglow/core/prose"
	"alpenglow/core/questions"
	"alpenglow/core/refusal"
	"alpenglow/core/xmltree"
)

// node is an element that is read, by its name in version 2.1.
type node = xmltree.Node

// Limits of a package.
const (
	MaxPackage  = 100 << 20 // bytes as it comes
	maxUnpacked = 200 << 20 // of all that is read of it
	maxDocument = 4 << 20
	maxPicture  = 20 << 20
	maxValues   = 100 // that are right, things that are offered, in one question
)

// Package is what was read: questions, whose pictures are named by their paths in it.
type Package struct {
	questions.Sheet
	Pictures map[string][]byte
}

// Is reports whether data is a package, or a single item.
func Is(data []byte) bool {
	if bytes.HasPrefix(data, []byte("PK\x03\x04")) {
		return bytes.Contains(data, []byte("imsmanifest.xml"))
	}
	head := bytes.TrimLeft(data[:min(len(data), 4096)], "\uFEFF \t\r\n")
	return bytes.HasPrefix(head, []byte("<")) &&
		(bytes.Contains(head, []byte("assessmentItem")) || bytes.Contains(head, []byte("qti-assessment-item")))
}

// Read reads a package or a single item. An item that cannot be read is there with its number and
// why, and costs no other. Numbers are written as a language does; ids are made by id.
func Read(data []byte, language string, id func() string) (Package, error) {
	p := Package{Pictures: map[string][]byte{}}
	if len(data) > MaxPackage {
		return p, refusal.New(refusal.FileHuge)
	}
	if !bytes.HasPrefix(data, []byte("PK\x03\x04")) {
		if len(data) > maxDocument {
			return p, refusal.New(refusal.FileHuge)
		}
		root, err := document1(data)
		if err != nil {
			return p, err
		}
		i, files := readItem(root, 1, language, id)
		if len(files) > 0 {
			i = without(i, func(string) bool { return false })
		}
		p.Items = []questions.Item{i}
		return p, nil
	}
	archive, err := zip.NewReader(bytes.NewReader(data), int64(len(data)))
	if err != nil {
		return p, refusal.New(refusal.FileUnreadable)
	}
	b := &box{archive: archive, left: maxUnpacked}
	title, files, err := b.items()
	if err != nil {
		return p, err
	}
	if len(files) > questions.MaxItems {
		return p, refusal.About(refusal.FileHuge, "at most %d questions", questions.MaxItems)
	}
	p.Title = clean(title)
	for n, file := range files {
		root, err := b.document(file)
		if r := refusal.Of(err); r != nil && r.Code == refusal.FileHuge {
			return p, err
		}
		if err != nil {
			p.Items = append(p.Items, questions.Item{At: n + 1, Failed: refusal.New(refusal.FileUnreadable)})
			continue
		}
		i, files := readItem(root, n+1, language, id)
		i = without(i, func(name string) bool {
			data, err := b.file(path.Join(path.Dir(file), files[name]), maxPicture)
			if err == nil {
				p.Pictures[name] = data
			}
			return err == nil
		})
		p.Items = append(p.Items, i)
	}
	return p, nil
}

// without takes those pictures away from a question that are not there.
func without(i questions.Item, there func(name string) bool) questions.Item {
	if i.Failed != nil {
		return i
	}
	i.Asked = i.Asked.WithPictures(func(name string) string {
		if there(name) {
			return name
		}
		i.Lose(questions.LossPicture)
		return ""
	})
	i.Failed = i.Asked.Check()
	return i
}

func document1(data []byte) (*node, error) {
	root, err := xmltree.Parse(data)
	if err == nil {
		rename(root)
	}
	return root, err
}

// rename gives elements and attributes their names of version 2.1.
func rename(n *node) {
	if !html[n.Name] {
		n.Name = plain(n.Name)
		attrs := map[string]string{}
		for name, value := range n.Attrs {
			attrs[plain(name)] = value
		}
		n.Attrs = attrs
	}
	for _, child := range n.Nodes {
		rename(child)
	}
}

// box is a zip of which so many bytes may still be unpacked.
type box struct {
	archive *zip.Reader
	left    int64
}

// file unpacks one file by its exact name, up to a limit whatever the zip says of its size.
func (b *box) file(name string, limit int64) ([]byte, error) {
	for _, f := range b.archive.File {
		if f.Name != name {
			continue
		}
		r, err := f.Open()
		if err != nil {
			return nil, refusal.New(refusal.FileUnreadable)
		}
		defer r.Close()
		limit = min(limit, b.left)
		data, err := io.ReadAll(io.LimitReader(r, limit+1))
		b.left -= int64(len(data))
		switch {
		case err != nil:
			return nil, refusal.New(refusal.FileUnreadable)
		case int64(len(data)) > limit:
			return nil, refusal.New(refusal.FileHuge)
		}
		return data, nil
	}
	return nil, refusal.New(refusal.FileUnreadable)
}

func (b *box) document(name string) (*node, error) {
	data, err := b.file(name, maxDocument)
	if err != nil {
		return nil, err
	}
	return document1(data)
}

// items lists the items of the package: in the order of its first test, else of its manifest.
func (b *box) items() (title string, files []string, err error) {
	manifest, err := b.document("imsmanifest.xml")
	if err != nil {
		return "", nil, err
	}
	var tests []string
	for _, r := range manifest.At("resources").All("resource") {
		href := path.Clean(r.Attr("href"))
		switch kind := r.Attr("type"); {
		case strings.HasPrefix(kind, "imsqti_test"):
			tests = append(tests, href)
		case strings.HasPrefix(kind, "imsqti_item"):
			files = append(files, href)
		}
	}
	if len(tests) == 0 {
		return "", files, nil
	}
	test, err := b.document(tests[0])
	if err != nil {
		return "", files, nil
	}
	var ordered []string
	var refs func(n *node)
	refs = func(n *node) {
		for _, child := range n.Nodes {
			if child.Name == "assessmentItemRef" {
				ordered = append(ordered, path.Join(path.Dir(tests[0]), child.Attr("href")))
			}
			refs(child)
		}
	}
	refs(test)
	if len(ordered) > 0 {
		files = ordered
	}
	return test.Attr("title"), files, nil
}

// reading is an item while it is read.
type reading struct {
	questions.Item
	root     *node
	language string
	id       func() string
	// interactions are those of the body, files the paths of pictures by the names that they got.
	interactions []*node
	files        map[string]string
}

// see gives the name by which the question has a picture.
func (r *reading) see(src string) string {
	if src == "" {
		return ""
	}
	name := r.id()
	r.files[name] = src
	return name
}

// readItem reads an item.
func readItem(root *node, at int, language string, id func() string) (questions.Item, map[string]string) {
	r := &reading{Item: questions.Item{At: at}, root: root, language: language, id: id, files: map[string]string{}}
	if root.Name != "assessmentItem" {
		r.Failed = refusal.New(refusal.NoQuestion)
		return r.Item, nil
	}
	body := root.At("itemBody")
	r.interactions = interactions(body)
	q := &r.Asked
	few := len(r.interactions) <= poll.MaxBlanks // else no question holds them
	for _, f := range forms() {
		if few && len(r.interactions) > 0 && q.Kind == "" && f.reads(r, r.interactions[0]) {
			q.Body = f.read(r, r.interactions[0])
		}
	}
	if q.Kind == "" || len(r.interactions) > 1 && q.Kind != poll.KindBlanks {
		r.Failed = refusal.New(refusal.NoQuestion)
		return r.Item, nil
	}
	first := r.interactions[0]
	q.Text = r.words(body, first)
	q.Shuffle = first.Attr("shuffle") == "true"
	q.Why = r.why()
	r.Failed = q.Check()
	return r.Item, r.files
}

// interactions lists what an item's body asks to do, in order.
func interactions(n *node) []*node {
	if n == nil {
		return nil
	}
	var all []*node
	for _, child := range n.Nodes {
		if strings.HasSuffix(child.Name, "Interaction") {
			all = append(all, child)
		} else {
			all = append(all, interactions(child)...)
		}
	}
	return all
}

// words gives the words of a question: those of the interaction's prompt, and all beside it.
func (r *reading) words(body, first *node) string {
	var all []string
	for _, block := range body.Nodes {
		if block != first && len(interactions(block)) == 0 {
			all = append(all, r.text(block, true))
		}
	}
	if first.At("prompt") != nil {
		all = append(all, r.text(first.At("prompt"), true))
	}
	all = slices.DeleteFunc(all, func(s string) bool { return s == "" })
	return strings.Join(all, "\n")
}

// known are elements that say nothing of how words are set.
var known = map[string]bool{
	"p":                      true,
	"div":                    true,
	"span":                   true,
	"br":                     true,
	"img":                    true,
	"prompt":                 true,
	"simpleChoice":           true,
	"simpleAssociableChoice": true,
	"inlineChoice":           true,
	"contentBody":            true,
	"modalFeedback":          true,
	"itemBody":               true,
	"blockquote":             true,
}

// hidden are elements that say what nobody may read before they answer, or that are computed.
var hidden = map[string]bool{
	"script":          true,
	"style":           true,
	"rubricBlock":     true,
	"feedbackBlock":   true,
	"feedbackInline":  true,
	"templateBlock":   true,
	"templateInline":  true,
	"printedVariable": true,
}

// media are what is heard or seen in time.
var media = map[string]bool{"audio": true, "video": true, "object": true, "mediaInteraction": true}

// text gives the words in an element, on one line but for breaks. A picture in it becomes the
// question's where it may, else it is lost.
func (r *reading) text(n *node, picture bool) string {
	var b strings.Builder
	r.write(&b, n, picture)
	lines := strings.Split(b.String(), "\n")
	for i := range lines {
		lines[i] = strings.Join(strings.Fields(lines[i]), " ")
	}
	return strings.TrimSpace(strings.Join(lines, "\n"))
}

func (r *reading) write(b *strings.Builder, n *node, picture bool) {
	switch {
	case n == nil:
		return
	case hidden[n.Name]:
		r.Lose(questions.LossMarkup)
		return
	case media[n.Name]:
		r.Lose(questions.LossMedia)
		return
	case n.Name == "br":
		b.WriteString("\n")
	case n.Name == "img" && picture && r.Asked.Picture == "":
		r.Asked.Picture = r.see(n.Attr("src"))
	case n.Name == "img":
		r.Lose(questions.LossPicture)
		b.WriteString(flat(n.Attr("alt")))
	case !known[n.Name]:
		r.Lose(questions.LossMarkup)
	}
	for i, child := range n.Nodes {
		b.WriteString(flat(child.Lead))
		if i > 0 && (child.Name == "p" || child.Name == "div") {
			b.WriteString("\n")
		}
		r.write(b, child, picture)
	}
	b.WriteString(flat(n.Tail))
}

// flat gives the text of a document on one line, without what no question may hold.
func flat(text string) string {
	return clean(strings.NewReplacer("\n", " ", "\r", " ", "\t", " ").Replace(text))
}

func clean(text string) string {
	return strings.Map(func(r rune) rune {
		if r < ' ' && r != '\n' || r == 0xFFFD || prose.Turns(r) {
			return -1
		}
		return r
	}, text)
}

// why gives what is said to everybody afterwards.
func (r *reading) why() string {
	var all []string
	for _, f := range r.root.All("modalFeedback") {
		if text := r.text(f, false); text != "" {
			all = append(all, text)
		}
	}
	return strings.Join(all, "\n")
}

// declaration gives what is declared of a response.
func (r *reading) declaration(id string) *node {
	for _, d := range r.root.All("responseDeclaration") {
		if d.Attr("identifier") == id {
			return d
		}
	}
	return nil
}

// right gives the values that are right for an interaction: those that are declared so, and those
// that a mapping gives something for.
func (r *reading) right(at *node) []string {
	d := r.declaration(at.Attr("responseIdentifier"))
	var all []string
	for _, v := range first(d.At("correctResponse").All("value")) {
		all = append(all, strings.TrimSpace(v.Text()))
	}
	for _, m := range first(d.At("mapping").All("mapEntry")) {
		if key := strings.TrimSpace(m.Attr("mapKey")); m.Number("mappedValue", 0) > 0 && !slices.Contains(all, key) {
			all = append(all, key)
		}
	}
	return all
}

// first gives no more of some elements than a question may have: with more it is refused anyhow, and
// nobody waits for them.
func first(all []*node) []*node { return all[:min(len(all), maxValues)] }

// options gives the choices in an element, and the ids that they get by their identifiers.
func (r *reading) options(in *node, name string, right ...string) ([]poll.Option, map[string]string) {
	all, ids := []poll.Option{}, map[string]string{}
	for _, c := range first(in.All(name)) {
		o := poll.Option{ID: r.id(), Right: slices.Contains(right, c.Attr("identifier"))}
		for _, child := range c.Nodes {
			if child.Name == "img" && o.Picture == "" {
				o.Picture, o.Text = r.see(child.Attr("src")), clean(child.Attr("alt"))
			}
		}
		if o.Picture == "" {
			o.Text = r.text(c, false)
		} else if said := strings.TrimSpace(flat(c.Text())); said != "" {
			o.Text = said
		}
		ids[c.Attr("identifier")] = o.ID
		all = append(all, o)
	}
	return all, ids
}
