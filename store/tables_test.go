package store_test

import (
	"archive/tar"
	"compress/gzip"
	"errors"
	"io"
	"slices"
	"strings"
	"testing"
)

// tables gives the rows of a backup in an order of their own, without its head.
func tables(t *testing.T, file io.Reader) string {
	t.Helper()
	zipped, err := gzip.NewReader(file)
	if err != nil {
		t.Fatal(err)
	}
	var rows []string
	archive := tar.NewReader(zipped)
	for {
		h, err := archive.Next()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			t.Fatal(err)
		}
		text, err := io.ReadAll(archive)
		if err != nil {
			t.Fatal(err)
		}
		if h.Name != "backup.json" {
			for line := range strings.Lines(string(text)) {
				rows = append(rows, h.Name+" "+line)
			}
		}
	}
	if len(rows) < 1000 {
		t.Fatalf("%d rows", len(rows))
	}
	slices.Sort(rows)
	return strings.Join(rows, "")
}
