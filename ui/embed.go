// Package ui holds the built interface. Run make build to fill dist.
package ui

import (
	"embed"
	"io/fs"
)

//go:embed all:dist
var dist embed.FS

// Built gives the built interface, with index.html at its root when it has been built.
func Built() fs.FS {
	sub, err := fs.Sub(dist, "dist")
	if err != nil {
		panic(err) // dist is embedded
	}
	return sub
}
