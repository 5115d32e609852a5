// Command fonts writes a TrueType font with those tables alone that shaping and
// painting need, so that core/letters can carry it.
// Usage: fonts in.ttf out.ttf
package main

import (
	"bytes"
	"fmt"
	"os"

	"github.com/go-text/typesetting/font/opentype"
)

// tables are what says which letters a font has, how wide they are at which
// weight, how they join, and what they look like; and in name whose they are and
// under which licence.
var tables = []string{"head", "hhea", "hmtx", "maxp", "cmap", "OS/2", "fvar", "avar", "HVAR", "GDEF", "GSUB", "GPOS",
	"kern", "glyf", "loca", "gvar", "name"}

func main() {
	if err := cut(os.Args[1], os.Args[2]); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

func cut(from, to string) error {
	text, err := os.ReadFile(from)
	if err != nil {
		return err
	}
	font, err := opentype.NewLoader(bytes.NewReader(text))
	if err != nil {
		return fmt.Errorf("%s: %w", from, err)
	}
	var kept []opentype.Table
	for _, name := range tables {
		tag := opentype.MustNewTag(name)
		if !font.HasTable(tag) {
			continue
		}
		content, err := font.RawTable(tag)
		if err != nil {
			return fmt.Errorf("%s: %s: %w", from, name, err)
		}
		kept = append(kept, opentype.Table{Tag: tag, Content: content})
	}
	return os.WriteFile(to, opentype.WriteTTF(kept), 0o644)
}
