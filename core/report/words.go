package report

import (
	"embed"
	"encoding/json"
	"fmt"
	"maps"
	"strings"
	"sync"

	"alpenglow/core/settings"
)

// The wording of reports, which the interface has from the same files.
//
//go:embed words/*.json
var files embed.FS

var wordings = sync.OnceValue(func() map[settings.Language]words {
	all := map[settings.Language]words{}
	for _, l := range settings.Languages {
		text, err := files.ReadFile("words/" + string(l) + ".json")
		var read map[string]map[string]string
		if err == nil {
			err = json.Unmarshal(text, &read)
		}
		if err != nil {
			panic(fmt.Sprintf("words of reports in %s: %v", l, err)) // a broken build
		}
		all[l] = words{}
		for _, part := range read {
			maps.Copy(all[l], part)
		}
	}
	return all
})

// Group is what a group is called, by its number, in a language.
func Group(l settings.Language, n int) string { return speak(l).say("group", "n", n) }

// words speak a language.
type words map[string]string

func speak(l settings.Language) words {
	if w, ok := wordings()[l]; ok {
		return w
	}
	return wordings()[settings.English]
}

// say gives a sentence with values in it: name, value, name, value, ... A count of one may have a sentence of its own.
func (w words) say(key string, values ...any) string {
	var pairs []string
	for i := 0; i+1 < len(values); i += 2 {
		pairs = append(pairs, fmt.Sprintf("{{%v}}", values[i]), fmt.Sprint(values[i+1]))
		if values[i] == "count" {
			many := key + "_other"
			if fmt.Sprint(values[i+1]) == "1" {
				many = key + "_one"
			}
			if w[many] != "" {
				key = many
			}
		}
	}
	return strings.NewReplacer(pairs...).Replace(w[key])
}
