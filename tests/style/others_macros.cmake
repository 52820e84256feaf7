# Writes a source that includes every public header after the macros that Qt, X11, Windows and SDL define. The standard
# library's headers come first: what those macros do to them is not ours.
cmake_minimum_required(VERSION 3.25)
file(GLOB_RECURSE headers RELATIVE ${ROOT}/include ${ROOT}/include/apsidon/*.hpp)
list(LENGTH headers count)
if(count LESS 80)
  message(FATAL_ERROR "only ${count} headers found under ${ROOT}/include: the check looks in the wrong place")
endif()
set(text "// Made by tests/style/others_macros.cmake.\n")
set(standard)
foreach(header IN LISTS headers)
  file(STRINGS ${ROOT}/include/${header} lines REGEX "^#include <")
  list(APPEND standard ${lines})
endforeach()
list(REMOVE_DUPLICATES standard)
foreach(line IN LISTS standard)
  string(APPEND text "${line}\n")
endforeach()
# Qt, with and without its keywords.
foreach(name slots signals emit forever)
  string(APPEND text "#define ${name} a_macro_of_qt(${name})\n")
endforeach()
string(APPEND text "#define foreach(variable, container) a_macro_of_qt\n")
# X11.
foreach(name None Bool Status True False Success Always Above Below Complex Convex Cursor Font KeyPress KeyRelease
             FocusIn FocusOut Expose Unsorted Complete Opposite CurrentTime)
  string(APPEND text "#define ${name} a_macro_of_x11(${name})\n")
endforeach()
# Windows: as functions and as words.
string(APPEND text "#define min(a, b) a_macro_of_windows\n#define max(a, b) a_macro_of_windows\n")
set(windows near far NEAR FAR ERROR DELETE "IN" OUT OPTIONAL CONST VOID small interface hyper IGNORE NO_ERROR
            TRANSPARENT OPAQUE ABSOLUTE RELATIVE STRICT DrawText GetObject CreateWindow)
foreach(name IN LISTS windows)
  string(APPEND text "#define ${name} a_macro_of_windows(${name})\n")
endforeach()
# SDL.
string(APPEND text "#define main a_macro_of_sdl\n")
foreach(header IN LISTS headers)
  string(APPEND text "#include \"${header}\"\n")
endforeach()
file(WRITE ${OUT} "${text}")
