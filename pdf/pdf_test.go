package pdf_test

import (
	"bytes"
	"compress/zlib"
	"context"
	"errors"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"syscall"
	"testing"
	"time"

	"alpenglow/core/refusal"
	"alpenglow/pdf"
)

var program string

// The reading process is the house's own program, built as it is delivered:
// the race detector would make the compiling of PDFium ten times as slow.
func TestMain(m *testing.M) {
	dir, err := os.MkdirTemp("", "alpenglow-pdf-test-")
	if err == nil {
		program = filepath.Join(dir, "alpenglow")
		var said []byte
		if said, err = exec.Command("go", "build", "-o", program, "alpenglow/cmd/alpenglow").CombinedOutput(); err != nil {
			fmt.Fprintln(os.Stderr, string(said))
		}
	}
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
	code := m.Run()
	os.RemoveAll(dir)
	os.Exit(code)
}

func reader(t testing.TB) pdf.Reader {
	t.Helper()
	return pdf.Reader{Command: []string{program, "pdf-pages"}}
}

// file writes a PDF with a page for each content stream (ISO 32000-1, 7.5).
func file(contents ...string) []byte {
	var out strings.Builder
	var at []int
	object := func(body string) {
		at = append(at, out.Len())
		fmt.Fprintf(&out, "%d 0 obj\n%s\nendobj\n", len(at), body)
	}
	out.WriteString("%PDF-1.4\n")
	object("<< /Type /Catalog /Pages 2 0 R >>")
	kids := ""
	for i := range contents {
		kids += fmt.Sprintf("%d 0 R ", 4+2*i)
	}
	object(fmt.Sprintf("<< /Type /Pages /Kids [%s] /Count %d >>", kids, len(contents)))
	object("<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>")
	for i, c := range contents {
		object(fmt.Sprintf("<< /Type /Page /Parent 2 0 R /MediaBox [0 0 595 842] /Contents %d 0 R /Resources << /Font << /F 3 0 R >> >> >>", 5+2*i))
		object(fmt.Sprintf("<< /Length %d >>\nstream\n%s\nendstream", len(c), c))
	}
	table := out.Len()
	fmt.Fprintf(&out, "xref\n0 %d\n0000000000 65535 f \n", len(at)+1)
	for _, a := range at {
		fmt.Fprintf(&out, "%010d 00000 n \n", a)
	}
	fmt.Fprintf(&out, "trailer\n<< /Size %d /Root 1 0 R >>\nstartxref\n%d\n%%%%EOF\n", len(at)+1, table)
	return []byte(out.String())
}

func words(text string) string { return "BT /F 24 Tf 72 700 Td (" + text + ") Tj ET" }

func TestPagesBecomePicturesAndText(t *testing.T) {
	var pages []pdf.Page
	all := 0
	err := reader(t).Read(t.Context(), file(words("High tide 07:24"), words("Low tide 13:37")), func(n int) { all = n }, func(p pdf.Page) error {
		pages = append(pages, p)
		return nil
	})
	if err != nil || all != 2 || len(pages) != 2 {
		t.Fatalf("%d of %d pages, %v", len(pages), all, err)
	}
	for i, want := range []string{"High tide 07:24", "Low tide 13:37"} {
		p := pages[i]
		if p.Failed || p.N != i || !strings.Contains(p.Text, want) || p.Height != 1600 || p.Width < 1100 || p.Width > 1140 || len(p.JPEG) < 1000 {
			t.Errorf("page %d: %d x %d, %q, %d bytes, failed %v", p.N, p.Width, p.Height, p.Text, len(p.JPEG), p.Failed)
		}
	}
}

func TestBadFiles(t *testing.T) {
	good := file(words("tide"))
	locked := []byte(strings.Replace(string(good), "/Root 1 0 R", "/Root 1 0 R /ID [<00><00>] /Encrypt << /Filter /Standard /V 1 /R 2 /P -4 /O <"+
		strings.Repeat("00", 32)+"> /U <"+strings.Repeat("00", 32)+"> >>", 1))
	for name, c := range map[string]struct {
		data []byte
		want refusal.Code
	}{
		"nothing":              {nil, refusal.FileUnreadable},
		"no PDF":               {[]byte("%PDF-1.7 and then nothing of the kind"), refusal.FileUnreadable},
		"locked by a password": {locked, refusal.FileLocked},
		"more than the limit":  {make([]byte, pdf.MaxBytes+1), refusal.FileHuge},
	} {
		err := reader(t).Read(t.Context(), c.data, func(int) {}, func(pdf.Page) error { return nil })
		if r := refusal.Of(err); r == nil || r.Code != c.want {
			t.Errorf("%s: %v, want %s", name, err, c.want)
		}
	}
}

// A file cut off in the middle is read as far as it goes, or refused; it never
// hangs. A long file is read up to its limit.
func TestTruncatedAndLong(t *testing.T) {
	whole := file(words("one"), words("two"), words("three"))
	err := reader(t).Read(t.Context(), whole[:len(whole)*2/3], func(int) {}, func(pdf.Page) error { return nil })
	if err != nil && refusal.Of(err) == nil {
		t.Errorf("a truncated file: %v", err)
	}
	contents := make([]string, 2000)
	for i := range contents {
		contents[i] = "0 0 m"
	}
	ctx, stop := context.WithCancel(t.Context())
	defer stop()
	all, read := 0, 0
	err = reader(t).Read(ctx, file(contents...), func(n int) { all = n }, func(p pdf.Page) error {
		if read++; read == 3 {
			stop()
		}
		return nil
	})
	if all != 2000 || !errors.Is(err, context.Canceled) {
		t.Errorf("%d pages, %v after %d", all, err, read)
	}
}

// A page that takes too long costs that page alone.
func TestSlowPage(t *testing.T) {
	before := pdf.PageWithin
	pdf.PageWithin = 4 * time.Second
	defer func() { pdf.PageWithin = before }()
	// Forms that call forms: ten to the ninth lines.
	slow := "q " + strings.Repeat(strings.Repeat("0 0 m 500 800 l S 500 0 m 0 800 l S ", 2000), 60) + " Q"
	var pages []pdf.Page
	err := reader(t).Read(t.Context(), file(words("first"), slow, words("third")), func(int) {}, func(p pdf.Page) error {
		pages = append(pages, p)
		return nil
	})
	if err != nil || len(pages) != 3 || pages[0].Failed || pages[2].Failed {
		t.Fatalf("%d pages, %v", len(pages), err)
	}
	if !strings.Contains(pages[2].Text, "third") {
		t.Errorf("the page after the slow one: %q", pages[2].Text)
	}
	t.Logf("the slow page failed: %v", pages[1].Failed)
}

// bomb is a page with a picture of 1.08 GB when it is unpacked.
func bomb(t *testing.T) []byte {
	t.Helper()
	const width, height = 30000, 12000
	var packed bytes.Buffer
	w, err := zlib.NewWriterLevel(&packed, zlib.BestSpeed)
	if err != nil {
		t.Fatal(err)
	}
	row := make([]byte, 3*width)
	for range height {
		if _, err := w.Write(row); err != nil {
			t.Fatal(err)
		}
	}
	if err := w.Close(); err != nil {
		t.Fatal(err)
	}
	picture := fmt.Sprintf("<< /Type /XObject /Subtype /Image /Width %d /Height %d /ColorSpace /DeviceRGB /BitsPerComponent 8 /Filter /FlateDecode /Length %d >>\nstream\n%s\nendstream",
		width, height, packed.Len(), packed.String())
	plain := string(file(words("before"), "q 595 0 0 842 0 0 cm /I Do Q", words("after")))
	plain = strings.Replace(plain, "/Font << /F 3 0 R >>", "/Font << /F 3 0 R >> /XObject << /I 10 0 R >>", 3)
	at := strings.Index(plain, "xref\n")
	// Its table of objects no longer fits: readers build it anew, as they do for files that were cut.
	return []byte(plain[:at] + "10 0 obj\n" + picture + "\nendobj\n" + plain[at:])
}

// What is enormous when unpacked costs at most its page, and no reading process
// ever takes more memory than it may.
func TestBombIsBounded(t *testing.T) {
	var pages []pdf.Page
	err := reader(t).Read(t.Context(), bomb(t), func(int) {}, func(p pdf.Page) error {
		pages = append(pages, p)
		return nil
	})
	if err != nil && refusal.Of(err) == nil {
		t.Fatal(err)
	}
	if err == nil && (len(pages) != 3 || !strings.Contains(pages[0].Text, "before") || !strings.Contains(pages[2].Text, "after")) {
		t.Errorf("%d pages", len(pages))
	}
	var used syscall.Rusage
	if err := syscall.Getrusage(syscall.RUSAGE_CHILDREN, &used); err != nil {
		t.Fatal(err)
	}
	if used.Maxrss > 2<<20 { // in KiB
		t.Errorf("a reading process took %d MiB", used.Maxrss>>10)
	}
	t.Logf("%d pages, %v; at most %d MiB", len(pages), err, used.Maxrss>>10)
}
