# The four ways to link, with static libraries, from a tarball as scripts/tarball makes it; and that a
# subdirectory brings the core alone. The two ways by an installed package with shared libraries are in style/moved_prefix.cmake.
cmake_minimum_required(VERSION 3.25)
include(${CMAKE_CURRENT_LIST_DIR}/../support/run.cmake)
set(common -G ${GENERATOR} -DCMAKE_CXX_COMPILER=${CXX} -DCMAKE_CXX_COMPILER_LAUNCHER=${LAUNCHER}
           "-DCMAKE_CXX_FLAGS=${CXX_FLAGS} -O0" -DCMAKE_UNITY_BUILD=ON -DCONSUMER=${ROOT}/tests/consumer)
file(REMOVE_RECURSE ${WORK})

if(WAY STREQUAL "subdirectory")
  run(${CMAKE_COMMAND} -S ${ROOT}/tests/linking -B ${WORK} ${common} -DAPSIDON_SOURCE_DIR=${ROOT} -DBUILD_SHARED_LIBS=ON)
  return()  # which targets there are is asked when it is configured; what is built of them is the same from a tarball
endif()

# The tree as it is, whether it is committed or not.
file(MAKE_DIRECTORY ${WORK})
set(tarball ${WORK}/apsidon.tar.gz)
run(${ROOT}/scripts/tarball ${tarball})
run(${CMAKE_COMMAND} -S ${ROOT}/tests/linking -B ${WORK}/build ${common} -DTARBALL=${tarball} -DAPSIDON_INSTALL=ON
    -DAPSIDON_WITH_FILES=ON -DAPSIDON_WITH_DRAW=ON -DBUILD_SHARED_LIBS=OFF)
run(${CMAKE_COMMAND} --build ${WORK}/build)
run(${WORK}/build/game ${TABLE})
run(${CMAKE_COMMAND} --install ${WORK}/build --prefix ${WORK}/prefix)

run(${CMAKE_COMMAND} -S ${ROOT}/tests/consumer -B ${WORK}/consumer ${common} -DCMAKE_PREFIX_PATH=${WORK}/prefix)
run(${CMAKE_COMMAND} --build ${WORK}/consumer)
run(env -i ${WORK}/consumer/consumer ${TABLE})

# The same line as with shared libraries.
file(GLOB_RECURSE pc ${WORK}/prefix/*/apsidon-draw.pc)
get_filename_component(pc ${pc} DIRECTORY)
set(ENV{PKG_CONFIG_PATH} ${pc})
run(pkg-config --cflags --libs apsidon-draw)
separate_arguments(flags UNIX_COMMAND "${out} ${CXX_FLAGS}")
run(${CXX} -std=c++20 ${ROOT}/tests/consumer/main.cpp -o ${WORK}/by_pkg_config ${flags})
run(env -i ${WORK}/by_pkg_config ${TABLE})
