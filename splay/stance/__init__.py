"""Where everything is: the floor, the sockets, the legs' axes and feet."""
