// A hand of cards as an item of Qt Quick: an atlas of all cards as one texture, an image node for each card
// with its perspective as a transform; Qt's events in, asleep while nothing moves. Nothing is drawn faded.
#include <QElapsedTimer>
#include <QGuiApplication>
#include <QMouseEvent>
#include <QQuickItem>
#include <QQuickWindow>
#include <QSGImageNode>
#include <QSGTransformNode>
#include <QTimer>
#include <cmath>
#include <cstdio>

#include "apsidon/apsidon.hpp"
#include "apsidon/draw/atlas.hpp"

using namespace apsidon;

class Cards : public QQuickItem {
 public:
  explicit Cards(TableSetup setup) : field_(std::move(setup)) {
    setFlag(ItemHasContents);
    setAcceptedMouseButtons(Qt::LeftButton);
    setAcceptHoverEvents(true);
    clock_.start();
    wake_.setSingleShot(true);
    QObject::connect(&wake_, &QTimer::timeout, this, [this] { go_on(); });
  }

 protected:
  void hoverMoveEvent(QHoverEvent* e) override { send(PointerPhase::move, e->posF()); }
  void mouseMoveEvent(QMouseEvent* e) override { send(PointerPhase::move, e->localPos()); }
  void mousePressEvent(QMouseEvent* e) override { send(PointerPhase::down, e->localPos()); }
  void mouseReleaseEvent(QMouseEvent* e) override { send(PointerPhase::up, e->localPos()); }
  void geometryChanged(const QRectF& now_at, const QRectF& before) override {
    QQuickItem::geometryChanged(now_at, before);
    field_.resize({static_cast<float>(width()), static_cast<float>(height())}, 1, now());
    go_on();
  }
  QSGNode* updatePaintNode(QSGNode* before, UpdatePaintNodeData*) override {
    delete before;
    auto* root = new QSGNode;
    draw_atlas(field_.frame());
    for (const FrameItem& item : field_.frame().items)
      if (item.kind != FrameKind::outline) root->appendChildNode(node_of(item));
    return root;
  }

 private:
  [[nodiscard]] double now() const { return static_cast<double>(clock_.nsecsElapsed()) / 1e9; }
  void send(PointerPhase phase, QPointF at) {
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
  /// All cards at the size that they have now, as one texture.
  void draw_atlas(const Frame& frame) {
    const auto ratio = static_cast<float>(window()->effectiveDevicePixelRatio());
    if (frame.card.empty() || (atlas_ && atlas_->card() == frame.card)) return;
    atlas_.emplace(field_.table().deck(), frame.card, ratio);
    (void)atlas_->build(frame, std::chrono::seconds(2));
    const Pixels pixels = atlas_->pixels();  // Qt reads its image later, and needs a copy
    const QImage image(pixels.all.data()->data(), pixels.width, pixels.height, QImage::Format_RGBA8888);
    texture_.reset(window()->createTextureFromImage(image.copy(), QQuickWindow::TextureHasAlphaChannel));
  }
  QSGNode* node_of(const FrameItem& item) {
    QPolygonF corners;
    for (const Vec2 at : item.corners.corners) corners << QPointF(at.x, at.y);
    QTransform perspective;  // of the square from 0 to 1
    QTransform::squareToQuad(corners, perspective);
    auto* place = new QSGTransformNode;
    place->setMatrix(QMatrix4x4(perspective));
    QSGImageNode* image = window()->createImageNode();
    image->setTexture(texture_.get());
    image->setFiltering(QSGTexture::Linear);
    image->setRect(0, 0, 1, 1);
    const PixelBox cell = atlas_->cell(item);
    image->setSourceRect(cell.x, cell.y, cell.width, cell.height);
    image->setFlag(QSGNode::OwnedByParent);
    place->appendChildNode(image);
    return place;
  }

  Playfield field_;
  std::optional<Atlas> atlas_;
  std::unique_ptr<QSGTexture> texture_;
  QElapsedTimer clock_;
  QTimer wake_;
  std::uint64_t drawn_ = 0;
};

int main(int argc, char** argv) {
  QGuiApplication app(argc, argv);
  TableSetup setup(standard_deck());
  ZoneSetup hand{.name = "hand",
                 .layout = {.kind = HandLayout{}, .longest = 9},
                 .rules = {.pick = {.kind = PickKind::any}, .sorts = true},
                 .handling = {.hover = HoverKind::raise}};
  for (std::uint32_t i = 1; i <= 7; ++i) hand.cards.push_back({.face = {7 * i}});
  setup.plans = {{.root = zone(setup.add(hand))}};
  QQuickWindow window;
  window.setColor(QColor(16, 36, 28));
  window.resize(900, 500);
  Cards cards(std::move(setup));
  cards.setParentItem(window.contentItem());
  const auto fill = [&] { cards.setSize(window.size()); };
  QObject::connect(&window, &QWindow::widthChanged, &cards, fill);
  QObject::connect(&window, &QWindow::heightChanged, &cards, fill);
  fill();
  window.show();
  return app.exec();
}
