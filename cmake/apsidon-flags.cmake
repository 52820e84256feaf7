# Developer flags, applied PRIVATE by a function: nothing of this reaches the exported targets.
function(apsidon_apply_dev_flags target)
  target_compile_options(${target} PRIVATE -Wall -Wextra -Wpedantic -Wshadow -Wconversion -Wsign-conversion
                                           -Wnon-virtual-dtor -Wold-style-cast)
  if(CMAKE_CXX_COMPILER_ID STREQUAL "GNU")
    # g++ 12 reports overlapping copies inside std::string that cannot happen (GCC bug 105651), and, optimizing, shared
    # pointers in temporaries as destroyed before they are made.
    target_compile_options(
      ${target} PRIVATE -Wno-restrict
                        $<$<CONFIG:Release>:-Wno-array-bounds;-Wno-stringop-overflow;-Wno-maybe-uninitialized>)
  endif()
  if(CMAKE_UNITY_BUILD AND CMAKE_CXX_COMPILER_ID STREQUAL "GNU")
    # What is private to a source is taken for a header's when several sources are compiled as one.
    target_compile_options(${target} PRIVATE -Wno-subobject-linkage)
  endif()
  if(APSIDON_WERROR)
    target_compile_options(${target} PRIVATE -Werror)
  endif()
  if(APSIDON_SANITIZE)  # a plain if(): $<BOOL:address,undefined> is an error because of the comma
    target_compile_options(${target} PRIVATE -fsanitize=${APSIDON_SANITIZE} -fno-omit-frame-pointer
                                             -fno-sanitize-recover=all)
    target_link_options(${target} PRIVATE -fsanitize=${APSIDON_SANITIZE})
    if(CMAKE_CXX_COMPILER_ID STREQUAL "GNU")
      # With sanitizers g++ 12 takes its own <regex> for uninitialised (GCC bug 105562).
      target_compile_options(${target} PRIVATE -Wno-maybe-uninitialized)
    endif()
  endif()
endfunction()

# Headers that take longer to read than the code beside them, read once a target. A source includes what it uses all the
# same: in CI clang builds without this.
function(apsidon_precompile target)
  target_precompile_headers(${target} PRIVATE ${ARGN})
  apsidon_precompile_flags(${target})
endfunction()

# As another target with the same flags has read them.
function(apsidon_precompile_as target other)
  target_precompile_headers(${target} REUSE_FROM ${other})
  apsidon_precompile_flags(${target})
endfunction()

function(apsidon_precompile_flags target)
  if(CMAKE_CXX_COMPILER_ID STREQUAL "GNU")
    target_compile_options(${target} PRIVATE -fpch-preprocess)  # for ccache
  else()
    target_compile_options(${target} PRIVATE -Xclang -fno-pch-timestamp)
  endif()
endfunction()

# The same inputs give the same bits: no contracted multiply-adds where poses are computed. Nobody asks for errno or
# floating-point traps, and without them loops with roots and clamps are done several numbers at once.
function(apsidon_apply_exact_floats target)
  target_compile_options(${target} PRIVATE -ffp-contract=off -fno-math-errno -fno-trapping-math)
endfunction()
