# run(COMMAND …): stops with what a command has printed when it fails; `out` is that otherwise.
function(run)
  execute_process(COMMAND ${ARGN} RESULT_VARIABLE code OUTPUT_VARIABLE out ERROR_VARIABLE out)
  if(NOT code EQUAL 0)
    message(FATAL_ERROR "${ARGN}\n  exit code ${code}: 0 is expected; it printed:\n${out}")
  endif()
  set(out "${out}" PARENT_SCOPE)
endfunction()
