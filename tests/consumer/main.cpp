#include "apsidon/apsidon.hpp"
#include "apsidon/draw/paint.hpp"
#include "apsidon/files/table_file.hpp"

int main(int, char** argv) {
  auto setup = apsidon::load_table(argv[1]);
  if (!setup) return 1;
  const apsidon::Playfield field(*std::move(setup));
  const auto picture = apsidon::paint(field.frame(), field.table().deck());
  return picture.width() == 1280 && field.table().card_count() == 52 ? 0 : 1;
}
