// Package xmltree reads XML documents of others with care: no document types, no entities of
// their own, not too deep, not too much.
package xmltree

import (
	"bytes"
	"encoding/xml"
	"errors"
	"io"
	"strconv"
	"strings"

	"alpenglow/core/refusal"
)

// Node is one element of an XML document: its local name, its attributes by
// local name, what is in it.
type Node struct {
	Name  string
	Attrs map[string]string
	Nodes []*Node
	// Lead is the text before it in the element that it is in, since the element before it; Tail is
	// what is in it after the last one, or all where there is none.
	Lead, Tail string
	text       strings.Builder
}

// Text is the text in an element, without that of the elements in it.
func (n *Node) Text() string {
	if n == nil {
		return ""
	}
	var all strings.Builder
	for _, child := range n.Nodes {
		all.WriteString(child.Lead)
	}
	return all.String() + n.Tail
}

// Limits of one document.
const (
	maxDepth = 100
	maxNodes = 200_000
)

// Parse reads a document. Document types, with which entities are defined, are
// refused.
func Parse(data []byte) (*Node, error) {
	reader := xml.NewDecoder(bytes.NewReader(data))
	root := &Node{}
	stack, count := []*Node{root}, 0
	for {
		token, err := reader.Token()
		if errors.Is(err, io.EOF) {
			if len(root.Nodes) == 0 {
				return nil, refusal.New(refusal.FileUnreadable)
			}
			return root.Nodes[0], nil
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
			top := stack[len(stack)-1]
			n := &Node{Name: t.Name.Local, Attrs: map[string]string{}, Lead: top.text.String()}
			top.text.Reset()
			for _, a := range t.Attr {
				n.Attrs[a.Name.Local] = a.Value
			}
			top.Nodes = append(top.Nodes, n)
			stack = append(stack, n)
		case xml.EndElement:
			top := stack[len(stack)-1]
			top.Tail = top.text.String()
			stack = stack[:len(stack)-1]
		case xml.CharData:
			stack[len(stack)-1].text.Write(t)
		}
	}
}

// At goes down by names and gives the first such element, or nil. A nil node
// has nothing in it.
func (n *Node) At(names ...string) *Node {
	for _, name := range names {
		var found *Node
		if n != nil {
			for _, child := range n.Nodes {
				if child.Name == name {
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

// All gives the elements in n with a name.
func (n *Node) All(name string) []*Node {
	var list []*Node
	if n != nil {
		for _, child := range n.Nodes {
			if child.Name == name {
				list = append(list, child)
			}
		}
	}
	return list
}

// Has says whether an element with a name is anywhere in n.
func (n *Node) Has(name string) bool {
	if n == nil {
		return false
	}
	for _, child := range n.Nodes {
		if child.Name == name || child.Has(name) {
			return true
		}
	}
	return false
}

// Attr gives an attribute; nothing where there is none.
func (n *Node) Attr(name string) string {
	if n == nil {
		return ""
	}
	return n.Attrs[name]
}

// Number reads an attribute as a number, or otherwise.
func (n *Node) Number(name string, otherwise float64) float64 {
	v, err := strconv.ParseFloat(n.Attr(name), 64)
	if err != nil || v != v || v > 1e12 || v < -1e12 {
		return otherwise
	}
	return v
}
