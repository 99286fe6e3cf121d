"""What leaves the screen: sheets to print, open files, readings taken in as a table."""
