# What is installed starts without any environment variable, also where its prefix was moved: the tool, and the program of
# a project of somebody else that was installed beside it and links only what it names.
cmake_minimum_required(VERSION 3.25)
include(${CMAKE_CURRENT_LIST_DIR}/../support/run.cmake)

set(first ${WORK}/first)
set(moved ${WORK}/somewhere/else)
file(REMOVE_RECURSE ${WORK})
run(${CMAKE_COMMAND} --install ${BUILD} --prefix ${first} --config ${CONFIG})
run(${CMAKE_COMMAND} -S ${CONSUMER} -B ${WORK}/consumer -G ${GENERATOR} -DCMAKE_PREFIX_PATH=${first}
    -DCMAKE_CXX_COMPILER=${CXX} -DCMAKE_CXX_FLAGS=${CXX_FLAGS} -DCMAKE_BUILD_TYPE=Release
    -DCMAKE_INSTALL_PREFIX=${first} "-DCMAKE_INSTALL_RPATH=$ORIGIN/../${LIBDIR}")
run(${CMAKE_COMMAND} --build ${WORK}/consumer)
run(${CMAKE_COMMAND} --install ${WORK}/consumer)
file(MAKE_DIRECTORY ${WORK}/somewhere)
file(RENAME ${first} ${moved})

set(bare env -i)
if(DEFINED ENV{LSAN_OPTIONS})  # the sanitizer's: what libraries below leak is none of ours
  list(APPEND bare LSAN_OPTIONS=$ENV{LSAN_OPTIONS})
endif()
run(${bare} ${moved}/bin/apsidon place ${TABLE})
run(${bare} ${moved}/bin/consumer ${TABLE})
foreach(file share/doc/apsidon/LICENSE share/apsidon/schemas/table.schema.json)
  if(NOT EXISTS ${moved}/${file})
    message(FATAL_ERROR "${file} is not installed")
  endif()
endforeach()

# By pkg-config, which finds the prefix where the file is now.
set(ENV{PKG_CONFIG_PATH} ${moved}/${LIBDIR}/pkgconfig)
run(pkg-config --cflags --libs apsidon-draw)
separate_arguments(flags UNIX_COMMAND "${out} ${CXX_FLAGS}")
run(${CXX} -std=c++20 ${CONSUMER}/main.cpp -o ${WORK}/by_pkg_config ${flags} -Wl,-rpath,${moved}/${LIBDIR})
run(${bare} ${WORK}/by_pkg_config ${TABLE})

# Nothing but the interface is exported.
if(SHARED)
  foreach(library core files draw sdl)
    run(nm --dynamic --defined-only --demangle ${moved}/${LIBDIR}/libapsidon_${library}.so)
    string(STRIP "${out}" out)
    string(REPLACE "\n" ";" symbols "${out}")
    foreach(symbol IN LISTS symbols)
      if(symbol MATCHES "_detail::|::Impl::" OR NOT symbol MATCHES "^[0-9a-f]* . .*apsidon::")
        message(FATAL_ERROR "libapsidon_${library}.so exports what is no part of the interface: ${symbol}")
      endif()
    endforeach()
  endforeach()
endif()
