// Two hands of cards in a Qt widget: Qt's events in, the frame painted out, asleep while nothing moves.
#include <QApplication>
#include <QElapsedTimer>
#include <QMouseEvent>
#include <QPainter>
#include <QTimer>
#include <QWidget>
#include <cmath>
#include <cstdio>

#include "apsidon/apsidon.hpp"
#include "apsidon/draw/paint.hpp"

using namespace apsidon;

class Cards : public QWidget {
 public:
  explicit Cards(TableSetup setup) : field_(std::move(setup)), painter_(field_.table().deck()) {
    setMouseTracking(true);
    clock_.start();
    wake_.setSingleShot(true);
    QObject::connect(&wake_, &QTimer::timeout, this, [this] { go_on(); });
  }

 protected:
  void mouseMoveEvent(QMouseEvent* e) override { send(PointerPhase::move, e); }
  void mousePressEvent(QMouseEvent* e) override { send(PointerPhase::down, e); }
  void mouseReleaseEvent(QMouseEvent* e) override { send(PointerPhase::up, e); }
  void resizeEvent(QResizeEvent*) override {
    const Size window{static_cast<float>(width()), static_cast<float>(height())};
    field_.resize(window, static_cast<float>(devicePixelRatioF()), now());
    go_on();
  }
  void paintEvent(QPaintEvent*) override {
    (void)painter_.repaint(picture_, field_.frame(), std::chrono::seconds(1));
    const int w = picture_->width(), h = picture_->height();
    const auto* pixels = reinterpret_cast<const uchar*>(picture_->row(0).data());
    QPainter(this).drawImage(rect(), QImage(pixels, w, h, 4 * w, QImage::Format_ARGB32_Premultiplied));
  }

 private:
  [[nodiscard]] double now() const { return static_cast<double>(clock_.nsecsElapsed()) / 1e9; }
  void send(PointerPhase phase, const QMouseEvent* e) {
    const QPointF at = e->localPos();
    const Vec2 point{static_cast<float>(at.x()), static_cast<float>(at.y())};
    field_.pointer({.phase = phase, .at = point, .time = now()});
    go_on();
  }
  void go_on() {
    while (const auto event = field_.next_event(now()))
      if (event->kind == EventKind::dropped) std::fprintf(stderr, "%s\n", describe(*event, field_).c_str());
    if (std::exchange(drawn_, field_.frame().revision) != drawn_) update();
    const double wait = field_.next_due() - now();
    if (std::isfinite(wait)) wake_.start(wait > 0 ? static_cast<int>(std::ceil(wait * 1000)) : 16);
  }

  Playfield field_;
  Painter painter_;
  std::optional<Picture> picture_;
  QElapsedTimer clock_;
  QTimer wake_;
  std::uint64_t drawn_ = 0;
};

int main(int argc, char** argv) {
  QApplication app(argc, argv);
  TableSetup setup(standard_deck());
  ZoneSetup hand{.name = "upper",
                 .layout = {.kind = HandLayout{}, .longest = 9},
                 .rules = {.pick = {.kind = PickKind::any}}};
  hand.rules.drop = rule::anything();
  hand.handling.hover = HoverKind::raise;
  const ZoneId upper = setup.add(hand);
  for (std::uint32_t i = 1; i <= 7; ++i) hand.cards.push_back({.face = {7 * i}});
  hand.name = "lower";
  setup.plans = {{.root = down({zone(upper, 1), zone(setup.add(hand), 1)})}};
  Cards cards(std::move(setup));
  cards.resize(640, 480);
  cards.show();
  return app.exec();
}
