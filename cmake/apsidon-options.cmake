include(CMakeDependentOption)
option(APSIDON_WITH_FILES     "Build apsidon::files (nlohmann-json)"         ${PROJECT_IS_TOP_LEVEL})
cmake_dependent_option(APSIDON_WITH_DRAW "Build apsidon::draw (Cairo, Pango)" ${PROJECT_IS_TOP_LEVEL} APSIDON_WITH_FILES OFF)
cmake_dependent_option(APSIDON_WITH_SDL  "Build apsidon::sdl (SDL2)"          ${PROJECT_IS_TOP_LEVEL} APSIDON_WITH_DRAW OFF)
# The tool shows tables in a window, and the tests run the tool: without a part of the library there is neither.
cmake_dependent_option(APSIDON_BUILD_TOOLS "Build the command-line tool"     ${PROJECT_IS_TOP_LEVEL} APSIDON_WITH_SDL OFF)
cmake_dependent_option(APSIDON_BUILD_TESTS "Build the tests"                 ${PROJECT_IS_TOP_LEVEL} APSIDON_WITH_SDL OFF)
option(APSIDON_BUILD_EXAMPLES "Build the examples"                           ${PROJECT_IS_TOP_LEVEL})
option(APSIDON_BUILD_BENCH    "Build the benchmarks"                         OFF)
option(APSIDON_BUILD_FUZZ     "Build the fuzzers (libFuzzer's need clang)"   OFF)
option(APSIDON_INSTALL        "Generate install and export rules"            ${PROJECT_IS_TOP_LEVEL})
option(APSIDON_WERROR         "Treat warnings as errors"                     OFF)
set(APSIDON_SANITIZE "" CACHE STRING "Sanitizers to build with, e.g. address,undefined")

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
