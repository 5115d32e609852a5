// Command alpenglow is the whole house in one program.
//
//	alpenglow serve     run the server
//	alpenglow demo      run it with a private database and made-up data
//	alpenglow invite    print a link that makes an administrator's account
//	alpenglow migrate   bring the database's tables up to date
//	alpenglow backup    write everything in the database to one file, while it is in use
//	alpenglow restore   fill an empty database from such a file
//	alpenglow register  write the register of a made-up school, to try bringing it in
//	alpenglow rehearse  send a simulated class to a lesson
//	alpenglow load      put a running server under the load of many classes
//	alpenglow faults    let classes work while the server, the database and the network fail
//	alpenglow attacks   let a lesson work while somebody means harm
package main

import (
	"context"
	"fmt"
	"os"
	"os/signal"
	"syscall"
)

var commands = map[string]func(ctx context.Context, args []string) error{
	"serve":     serve,
	"demo":      serveDemo,
	"invite":    invite,
	"migrate":   migrate,
	"backup":    backup,
	"restore":   restore,
	"register":  register,
	"load":      load,
	"crowd":     crowd,
	"faults":    faults,
	"attacks":   attacks,
	"attack":    attackOnce,
	"rehearse":  rehearse,
	"relay":     relay,
	"pdf-pages": pdfPages,
	"picture":   readPicture,
}

func main() {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	if len(os.Args) < 2 || commands[os.Args[1]] == nil {
		fmt.Fprintln(
			os.Stderr,
			"usage: alpenglow serve | demo | invite | migrate | backup FILE | restore FILE | register FILE | rehearse | load",
		)
		os.Exit(2)
	}
	if err := commands[os.Args[1]](ctx, os.Args[2:]); err != nil {
		fmt.Fprintln(os.Stderr, "alpenglow:", err)
		os.Exit(1)
	}
}
