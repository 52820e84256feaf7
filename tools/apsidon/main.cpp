// apsidon: one verb a file.
#include "shared/common.hpp"

int main(int argc, char** argv) {
  apsidon::tool::CommandLine line;
  apsidon::tool::add_place(line);
  apsidon::tool::add_draw(line);
  apsidon::tool::add_probe(line);
  apsidon::tool::add_judge(line);
  apsidon::tool::add_replay(line);
  apsidon::tool::add_film(line);
  apsidon::tool::add_curve(line);
  apsidon::tool::add_faces(line);
  apsidon::tool::add_fit(line);
  apsidon::tool::add_check(line);
  apsidon::tool::add_play(line);
  apsidon::tool::add_demo(line);
  apsidon::tool::add_help(line);
  return line.run(argc, argv);
}
