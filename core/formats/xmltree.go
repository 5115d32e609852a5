package formats

import (
	"bytes"
	"encoding/xml"
	"errors"
	"io"
	"strconv"
	"strings"

	"alpenglow/core/refusal"
)

// node is one element of an XML document: its local name, its attributes by
// local name, what is in it.
type node struct {
	name  string
	attrs map[string]string
	nodes []*node
	text  strings.Builder
}

// Limits of one document.
const (
	maxDepth = 100
	maxNodes = 200_000
)

// parse reads a document. Document types, with which entities are defined, are
// refused.
func parse(data []byte) (*node, error) {
	reader := xml.NewDecoder(bytes.NewReader(data))
	root := &node{}
	stack, count := []*node{root}, 0
	for {
		token, err := reader.Token()
		if errors.Is(err, io.EOF) {
			if len(root.nodes) == 0 {
				return nil, refusal.New(refusal.FileUnreadable)
			}
			return root.nodes[0], nil
		}
		if err != nil {
			return nil, refusal.New(refusal.FileUnreadable)
		}
		switch t := token.(type) {
		case xml.Directive:
			return nil, refusal.New(refusal.FileUnreadable)
		case xml.StartElement:
			if count++; count > maxNodes || len(stack) > maxDepth {
				return nil, refusal.New(refusal.FileHuge)
			}
			n := &node{name: t.Name.Local, attrs: map[string]string{}}
			for _, a := range t.Attr {
				n.attrs[a.Name.Local] = a.Value
			}
			top := stack[len(stack)-1]
			top.nodes = append(top.nodes, n)
			stack = append(stack, n)
		case xml.EndElement:
			stack = stack[:len(stack)-1]
		case xml.CharData:
			stack[len(stack)-1].text.Write(t)
		}
	}
}

// at goes down by names and gives the first such element, or nil. A nil node
// has nothing in it.
func (n *node) at(names ...string) *node {
	for _, name := range names {
		var found *node
		if n != nil {
			for _, child := range n.nodes {
				if child.name == name {
					found = child
					break
				}
			}
		}
		if n = found; n == nil {
			return nil
		}
	}
	return n
}

// all gives the elements in n with a name.
func (n *node) all(name string) []*node {
	var list []*node
	if n != nil {
		for _, child := range n.nodes {
			if child.name == name {
				list = append(list, child)
			}
		}
	}
	return list
}

// has says whether an element with a name is anywhere in n.
func (n *node) has(name string) bool {
	if n == nil {
		return false
	}
	for _, child := range n.nodes {
		if child.name == name || child.has(name) {
			return true
		}
	}
	return false
}

func (n *node) attr(name string) string {
	if n == nil {
		return ""
	}
	return n.attrs[name]
}

// number reads an attribute as a number, or otherwise.
func (n *node) number(name string, otherwise float64) float64 {
	v, err := strconv.ParseFloat(n.attr(name), 64)
	if err != nil || v != v || v > 1e12 || v < -1e12 {
		return otherwise
	}
	return v
}
