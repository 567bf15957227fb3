"""Files that are held in pieces for a while: on their way in from a page, or out to one."""
