package pdf_test

import (
	"bytes"
	"compress/flate"
	"compress/zlib"
	"context"
	"encoding/binary"
	"errors"
	"fmt"
	"io"
	"os"
	"strings"
	"testing"
	"time"

	"alpenglow/apart/aparttest"
	"alpenglow/core/refusal"
	"alpenglow/pdf"
)

func TestMain(m *testing.M) { os.Exit(aparttest.Run(m.Run)) }

func reader(t testing.TB) pdf.Reader {
	t.Helper()
	return pdf.Reader{Command: []string{aparttest.Program, "pdf-pages"}}
}

func TestPagesBecomePicturesAndText(t *testing.T) {
	t.Parallel()
	var pages []pdf.Page
	all := 0
	err := reader(t).Read(t.Context(), file(words("High tide 07:24"), words("Low tide 13:37")), func(n int) { all = n },
		func(p pdf.Page) error {
			pages = append(pages, p)
			return nil
		})
	if err != nil || all != 2 || len(pages) != 2 {
		t.Fatalf("%d of %d pages, %v", len(pages), all, err)
	}
	for i, want := range []string{"High tide 07:24", "Low tide 13:37"} {
		p := pages[i]
		if p.Failed || p.N != i || !strings.Contains(p.Text, want) || p.Height != 1600 || p.Width < 1100 ||
			p.Width > 1140 || len(p.JPEG) < 1000 {
			t.Errorf("page %d: %d x %d, %q, %d bytes, failed %v", p.N, p.Width, p.Height, p.Text, len(p.JPEG), p.Failed)
		}
	}
}

func TestBadFiles(t *testing.T) {
	t.Parallel()
	good := file(words("tide"))
	locked := []byte(strings.Replace(string(good), "/Root 1 0 R",
		"/Root 1 0 R /ID [<00><00>] /Encrypt << /Filter /Standard /V 1 /R 2 /P -4 /O <"+
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

func TestWarm(t *testing.T) {
	t.Parallel()
	if err := reader(t).Warm(t.Context()); err != nil {
		t.Error(err)
	}
	if err := (pdf.Reader{Command: []string{"/nonexistent"}}).Warm(t.Context()); err == nil {
		t.Error("a reader that is not there is ready")
	}
}

// A file cut off in the middle is read as far as it goes, or refused; it never
// hangs. A long file is read up to its limit.
func TestTruncatedAndLong(t *testing.T) {
	t.Parallel()
	if testing.Short() {
		t.Skip("takes long")
	}
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
func TestSlowPage(t *testing.T) { // not beside others: how long a page may take is changed for all
	if testing.Short() {
		t.Skip("takes long")
	}
	before := pdf.PageWithin
	pdf.PageWithin = 4 * time.Second
	defer func() { pdf.PageWithin = before }()
	// Forms that call forms: ten to the ninth lines.
	slow := "q " + strings.Repeat(strings.Repeat("0 0 m 500 800 l S 500 0 m 0 800 l S ", 2000), 60) + " Q"
	var pages []pdf.Page
	err := reader(t).Read(t.Context(), file(words("first"), slow, words("third")), func(int) {},
		func(p pdf.Page) error {
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
func bomb() []byte {
	const width, height, mib = 30000, 12000, 1030 // a little more than 3 bytes for each
	m := newMaker()
	fonts := "/Font << /F " + m.object("<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>") + " >>"
	picture := m.packed(fmt.Sprintf("/Type /XObject /Subtype /Image /Width %d /Height %d /ColorSpace /DeviceRGB "+
		"/BitsPerComponent 8", width, height), zeros(mib))
	m.page(words("before"), fonts, "")
	m.page("q 595 0 0 842 0 0 cm /I Do Q", "/XObject << /I "+picture+" >>", "")
	m.page(words("after"), fonts, "")
	return m.bytes()
}

// zeros is so many MiB of zeros, packed (RFC 1950 and 1951) without going through
// them all: with its history, each block but the first is packed alike.
func zeros(mib int) []byte {
	var packed bytes.Buffer
	w, _ := flate.NewWriter(&packed, flate.BestCompression)
	block := make([]byte, 1<<20)
	w.Write(block)
	w.Flush()
	first := packed.Len()
	w.Write(block)
	w.Flush()
	out := append([]byte{0x78, 0xda}, packed.Bytes()[:first]...)
	out = append(out, bytes.Repeat(packed.Bytes()[first:], mib-1)...)
	out = append(out, 1, 0, 0, 0xff, 0xff)
	// Adler-32 of n zeros: the sums are 1 and n, modulo 65521.
	return binary.BigEndian.AppendUint32(out, uint32((mib<<20)%65521)<<16|1)
}

// What is enormous when unpacked costs at most its page, and no reading process
// ever takes more memory than it may.
func TestBombIsBounded(t *testing.T) {
	t.Parallel()
	if testing.Short() {
		t.Skip("takes long")
	}
	var pages []pdf.Page
	most := peak(t)
	err := reader(t).Read(t.Context(), bomb(), func(int) {}, func(p pdf.Page) error {
		pages = append(pages, p)
		return nil
	})
	if err != nil && refusal.Of(err) == nil {
		t.Fatal(err)
	}
	if err == nil && (len(pages) != 3 || !strings.Contains(pages[0].Text, "before") ||
		!strings.Contains(pages[2].Text, "after")) {
		t.Errorf("%d pages", len(pages))
	}
	if got := most(); got == 0 || got > 1024 {
		t.Errorf("a reading process took %d MiB", got)
	}
	t.Logf("%d pages, %v; at most %d MiB", len(pages), err, most())
}

// Thirty pages, of worksheets and of scans with 200 dots an inch: how long
// until the first is there, until all are, and how much memory the reading
// process takes at most. The first reading on a machine also compiles PDFium;
// one is done before.
func BenchmarkThirtyPages(b *testing.B) {
	worksheets, _ := worksheet(b, 5)
	for name, data := range map[string][]byte{"worksheets": worksheets, "scans": scans(b, 30)} {
		b.Run(name, func(b *testing.B) {
			r, most := reader(b), peak(b)
			var firsts, alls time.Duration
			read := func() {
				start := time.Now()
				err := r.Read(b.Context(), data, func(int) {}, func(p pdf.Page) error {
					if p.N == 0 {
						firsts += time.Since(start)
					}
					return nil
				})
				if err != nil {
					b.Fatal(err)
				}
				alls += time.Since(start)
			}
			read()
			firsts, alls = 0, 0
			for b.Loop() {
				read()
			}
			b.ReportMetric(float64(firsts.Milliseconds())/float64(b.N), "ms/first-page")
			b.ReportMetric(float64(alls.Milliseconds())/float64(b.N), "ms/30-pages")
			b.ReportMetric(float64(most()), "MiB-at-most")
		})
	}
}

// What is packed without going through it all unpacks to zeros, so many.
func TestZeros(t *testing.T) {
	t.Parallel()
	r, err := zlib.NewReader(bytes.NewReader(zeros(5)))
	if err != nil {
		t.Fatal(err)
	}
	if all, err := io.ReadAll(r); err != nil || len(all) != 5<<20 || len(bytes.Trim(all, "\x00")) != 0 {
		t.Fatal(len(all), err)
	}
}
