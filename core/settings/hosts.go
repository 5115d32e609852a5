package settings

import (
	"net/netip"
	"net/url"
	"regexp"
	"slices"
	"strings"

	"alpenglow/core/refusal"

	"golang.org/x/net/idna"
)

// maxHosts is how many sites may show work on their pages.
const maxHosts = 20

// plainHost is what is left of a host name once it is in ASCII; nothing in it means anything in a header.
var plainHost = regexp.MustCompile(`^[a-z0-9-]+(\.[a-z0-9-]+)*$`)

// readHosts gives sites as they are kept: scheme, host and port, each once. What has no scheme is read as https.
func readHosts(typed []string) ([]string, error) {
	var hosts []string
	for _, text := range typed {
		host, err := readHost(strings.TrimSpace(text))
		if err != nil {
			return nil, err
		}
		if host != "" && !slices.Contains(hosts, host) {
			hosts = append(hosts, host)
		}
	}
	if len(hosts) > maxHosts {
		return nil, refusal.About(refusal.TooMany, "at most %d sites", maxHosts)
	}
	return hosts, nil
}

func readHost(text string) (string, error) {
	if text == "" {
		return "", nil
	}
	if !strings.Contains(text, "://") {
		text = "https://" + text
	}
	bad := refusal.About(refusal.BadLink, "a site is a name such as pages.school.example")
	u, err := url.Parse(text)
	if err != nil || u.Scheme != "https" && u.Scheme != "http" || u.User != nil || u.Opaque != "" ||
		strings.Trim(u.Path, "/") != "" || u.RawQuery != "" || u.Fragment != "" {
		return "", bad
	}
	name, err := idna.Lookup.ToASCII(u.Hostname())
	if err != nil {
		return "", bad
	}
	if name = strings.ToLower(name); !plainHost.MatchString(name) || len(name) > 253 {
		return "", bad
	}
	port := u.Port()
	if strings.HasSuffix(u.Host, ":") {
		return "", bad
	}
	if port != "" {
		if _, err := netip.ParseAddrPort("127.0.0.1:" + port); err != nil {
			return "", bad
		}
		name += ":" + port
	}
	return u.Scheme + "://" + name, nil
}
