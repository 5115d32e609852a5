package main

import (
	"fmt"
	"strings"

	"alpenglow/core/lesson"
)

// colours gives the style sheet of the inks and tints: tokens for a light
// ground, and the inks once more for a dark one.
func colours() string {
	var light, dark strings.Builder
	for _, t := range lesson.Tints {
		fmt.Fprintf(&light, "  --color-note-%s: %s;\n", t, t.Colour())
	}
	for _, i := range lesson.Inks {
		fmt.Fprintf(&light, "  --color-ink-%s: %s;\n", i, i.Colour())
		if i.Chalk() != i.Colour() {
			fmt.Fprintf(&dark, "  --color-ink-%s: %s;\n", i, i.Chalk())
		}
	}
	return "/* Written by web/wiretypes from core/lesson/colours.go. Do not edit; run make types. */\n" +
		"@theme {\n" + light.String() + "}\n\n[data-dark] {\n" + dark.String() + "}\n"
}
