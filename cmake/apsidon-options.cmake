option(APSIDON_BUILD_TESTS    "Build the tests"                              ${PROJECT_IS_TOP_LEVEL})
option(APSIDON_BUILD_TOOLS    "Build the command-line tool"                  ${PROJECT_IS_TOP_LEVEL})
option(APSIDON_BUILD_EXAMPLES "Build the examples"                           ${PROJECT_IS_TOP_LEVEL})
option(APSIDON_BUILD_BENCH    "Build the benchmarks"                         OFF)
option(APSIDON_BUILD_FUZZ     "Build the fuzzers (libFuzzer's need clang)"   OFF)
option(APSIDON_INSTALL        "Generate install and export rules"            ${PROJECT_IS_TOP_LEVEL})
option(APSIDON_WITH_FILES     "Build apsidon::files (nlohmann-json)"         ${PROJECT_IS_TOP_LEVEL})
option(APSIDON_WITH_DRAW      "Build apsidon::draw (Cairo, Pango)"           ${PROJECT_IS_TOP_LEVEL})
option(APSIDON_WITH_SDL         "Build apsidon::sdl (SDL2)"                    ${PROJECT_IS_TOP_LEVEL})
option(APSIDON_WERROR         "Treat warnings as errors"                     OFF)
set(APSIDON_SANITIZE "" CACHE STRING "Sanitizers to build with, e.g. address,undefined")

if(APSIDON_BUILD_TOOLS OR APSIDON_BUILD_TESTS)
  if(NOT APSIDON_WITH_FILES OR NOT APSIDON_WITH_DRAW OR NOT APSIDON_WITH_SDL)
    message(FATAL_ERROR "apsidon: the tool and the tests need APSIDON_WITH_FILES, APSIDON_WITH_DRAW and APSIDON_WITH_SDL; "
                        "switch all on, or APSIDON_BUILD_TOOLS and APSIDON_BUILD_TESTS off")
  endif()
endif()

# A library without optimisation is a surprise that costs its user an afternoon.
if(PROJECT_IS_TOP_LEVEL AND NOT CMAKE_BUILD_TYPE AND NOT CMAKE_CONFIGURATION_TYPES)
  set(CMAKE_BUILD_TYPE Release CACHE STRING "" FORCE)
endif()
find_program(APSIDON_CCACHE ccache)
mark_as_advanced(APSIDON_CCACHE)
if(PROJECT_IS_TOP_LEVEL AND APSIDON_CCACHE AND NOT CMAKE_CXX_COMPILER_LAUNCHER)
  # The settings let ccache work beside precompiled headers.
  set(CMAKE_CXX_COMPILER_LAUNCHER ${CMAKE_COMMAND} -E env CCACHE_SLOPPINESS=pch_defines,time_macros ${APSIDON_CCACHE})
endif()
