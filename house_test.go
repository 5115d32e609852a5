// Package alpenglow holds the test of the house's shape.
package alpenglow

import (
	"go/parser"
	"go/token"
	"io/fs"
	"os"
	"path"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"testing"
)

// may says which folders of the house a folder may import; itself always.
var may = map[string][]string{
	"core":    {},
	"store":   {"core"},
	"live":    {"core", "store"},
	"pdf":     {"core"},
	"apart":   {"core"},
	"mail":    {"core", "store"},
	"web":     {"core", "store", "live", "mail", "pdf", "apart"},
	"standin": {"core", "live", "web"}, // of live and web, what goes over the wire
	"demo":    {"core", "store", "standin"},
	"cmd":     {"demo", "core", "store", "live", "mail", "pdf", "apart", "web", "standin", "ui"},
	"ui":      {},
	"scripts": {},
}

// foreign says which outside modules a folder may not know.
var foreign = map[string]*regexp.Regexp{
	"core": regexp.MustCompile(
		`^(net/http|database/sql|time/tzdata|math/rand|crypto/rand|github\.com/(gin-gonic|jmoiron|jackc|centrifugal|prometheus|alexedwards))`,
	),
	"store": regexp.MustCompile(`^(net/http|github\.com/(gin-gonic|centrifugal|prometheus|alexedwards))`),
	"live":  regexp.MustCompile(`^github\.com/(gin-gonic|jmoiron|jackc|alexedwards)`),
	"web":   regexp.MustCompile(`^github\.com/(jmoiron|jackc|centrifugal)`),
}

// The arrows between the folders point one way; tests may use more.
func TestArrowsBetweenFolders(t *testing.T) {
	seen := map[string]bool{}
	err := filepath.WalkDir(".", func(name string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() && (d.Name() == "node_modules" || d.Name() == ".git" || d.Name() == ".local") {
			if err == nil {
				err = fs.SkipDir
			}
			return err
		}
		if !strings.HasSuffix(name, ".go") || strings.HasSuffix(name, "_test.go") {
			return nil
		}
		folder, _, _ := strings.Cut(filepath.ToSlash(name), "/")
		allowed, known := may[folder]
		if !known {
			t.Errorf("%s lies in a folder that the house does not know", name)
			return nil
		}
		seen[folder] = true
		file, err := parser.ParseFile(token.NewFileSet(), name, nil, parser.ImportsOnly)
		if err != nil {
			return err
		}
		for _, spec := range file.Imports {
			imported := strings.Trim(spec.Path.Value, `"`)
			if bad := foreign[folder]; bad != nil && bad.MatchString(imported) {
				t.Errorf("%s imports %s", name, imported)
			}
			if ours, ok := strings.CutPrefix(imported, "alpenglow/"); ok {
				to, _, _ := strings.Cut(ours, "/")
				if to != folder && !slices.Contains(allowed, to) {
					t.Errorf("%s imports %s", name, imported)
				}
			}
		}
		return nil
	})
	if err != nil {
		t.Fatal(err)
	}
	for _, folder := range []string{"core", "store", "live", "web", "cmd"} {
		if !seen[folder] {
			t.Errorf("no Go files found in %s", folder)
		}
	}
}

// core has no clock of its own: the time is passed in.
func TestCoreHasNoClock(t *testing.T) { nowhere(t, "core/*/*.go", "time.Now") }

// What the screens of the interface share; a screen imports these and never
// another screen. The shared folders never import a screen.
var shared = []string{"frame", "grid", "kit", "letter", "line", "polls", "rules", "shown", "wire", "words"}

var imports = regexp.MustCompile(`(?:from|import) ['"](\.[^'"]+)['"]`)

func TestScreensDoNotImportEachOther(t *testing.T) {
	found := 0
	err := filepath.WalkDir("ui/src", func(name string, d fs.DirEntry, err error) error {
		// Tests may hold one thing against another.
		if err != nil || d.IsDir() || strings.HasSuffix(name, ".test.ts") {
			return err
		}
		folder := folderOf(filepath.ToSlash(name))
		text, err := os.ReadFile(name)
		if err != nil || folder == "" { // main.tsx brings the screens together
			return err
		}
		for _, m := range imports.FindAllStringSubmatch(string(text), -1) {
			found++
			to := folderOf(path.Join(path.Dir(filepath.ToSlash(name)), m[1]))
			if to != "" && to != folder && !slices.Contains(shared, to) {
				t.Errorf("%s imports from the screen %s", name, to)
			}
			if folder == "wire" && to != "wire" && to != "rules" && to != "" {
				t.Errorf("%s imports from %s", name, to)
			}
			if folder == "rules" && to != "rules" && !strings.HasSuffix(m[1], "wire/types.gen") {
				t.Errorf("%s imports %s: rules know nothing but the types", name, m[1])
			}
		}
		return nil
	})
	if err != nil || found < 50 {
		t.Fatalf("%d imports found, %v", found, err)
	}
}

// Tests in the browser wait for what must become true, never for time.
func TestNoFixedWaits(t *testing.T) { nowhere(t, "e2e/tests/*.ts", "waitForTimeout") }

// nowhere fails where one of these files has the word in it, or where there are hardly any files.
func nowhere(t *testing.T, files, word string) {
	t.Helper()
	names, err := filepath.Glob(files)
	if err != nil || len(names) < 20 {
		t.Fatalf("%d files %s, %v", len(names), files, err)
	}
	for _, name := range names {
		text, err := os.ReadFile(name)
		if err != nil {
			t.Fatal(err)
		}
		if strings.Contains(string(text), word) {
			t.Errorf("%s has %s", name, word)
		}
	}
}

func folderOf(name string) string {
	rest, ok := strings.CutPrefix(name, "ui/src/")
	if !ok {
		return ""
	}
	folder, _, nested := strings.Cut(rest, "/")
	if !nested {
		return ""
	}
	return folder
}
