// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/read/read_view.h"

#include "app/parts/form_parts.h"
#include "app/read/curve_plottable.h"
#include "app/read/piece_card_view.h"
#include "app/theme/theme.h"

#include <QComboBox>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPicture>
#include <QVBoxLayout>

#include <algorithm>
#include <set>

namespace inchpeg::app
{

namespace
{

constexpr QMargins kNamePadding(9, 5, 9, 5);

constexpr double kZoomStep = 0.8;
constexpr double kPanStep = 0.1;
/// How near the mouse must be to a marker or a curve, in picture points.
constexpr double kReach = 11.0;
/// Up to so many curves every picture point is drawn; of more, coarser ones.
constexpr double kFineCurves = 60.0;
constexpr double kCoarsest = 6.0;
constexpr int kManySteps = 10;

} // namespace

ReadView::ReadView(ProjectSession &session, ReadPresenter &presenter, QWidget *parent)
    : QWidget(parent), m_session(session), m_presenter(presenter)
{
    setObjectName(QStringLiteral("readView"));
    auto *layout = new QHBoxLayout(this);
    layout->setContentsMargins(8, 8, 8, 8);
    layout->addWidget(createPlot(), 3);
    m_card = new PieceCardView(presenter);
    layout->addWidget(m_card, 2);
    connect(&m_card->markers(), &MarkerPanel::finished, m_plot, qOverload<>(&QWidget::setFocus));
    for (const auto signal :
         {&ProjectSession::readingsChanged, &ProjectSession::studyChanged, &ProjectSession::shownRailsChanged,
          &ProjectSession::selectionChanged, &ProjectSession::lensChanged, &ProjectSession::notationChanged})
        connect(&session, signal, this, &ReadView::redraw);
    connect(&session, &ProjectSession::selectionChanged, this, [this] { m_chosen.clear(); });
    connect(&session, &ProjectSession::notationChanged, this, [this] { m_fitted = {}; });
    connect(&presenter, &ReadPresenter::detailChanged, this, &ReadView::redrawDetail);
    connect(&presenter, &ReadPresenter::lookChanged, this, &ReadView::redraw);
    redraw();
}

QWidget *ReadView::createPlot()
{
    m_plot = new QCustomPlot;
    m_plot->setObjectName(QStringLiteral("curvePlot"));
    m_plot->setAccessibleName(tr("Curves of the shown rails"));
    m_plot->setFocusPolicy(Qt::StrongFocus);
    m_plot->setMinimumSize(120, 120);
    m_plot->setAutoAddPlottableToLegend(false); // there is none, and leaving one takes time by the square
    m_plot->setInteractions(QCP::iRangeDrag | QCP::iRangeZoom);
    m_plot->setMouseTracking(true);
    m_plot->installEventFilter(this);
    m_replot.setSingleShot(true);
    m_replot.setInterval(20); // hundreds of curves are a frame of their own, after the one of the other parts
    connect(&m_replot, &QTimer::timeout, m_plot, [this] {
        if (!m_plot->size().isEmpty()) // not laid out yet: it draws itself when it is
            m_plot->replot(QCustomPlot::rpQueuedRefresh);
    });
    connect(m_plot, &QCustomPlot::mouseDoubleClick, this, &ReadView::showAll);
    m_empty = softLabel({}, m_plot);
    m_empty->setAlignment(Qt::AlignCenter);
    m_empty->setAttribute(Qt::WA_TransparentForMouseEvents);
    auto *centred = new QVBoxLayout(m_plot);
    centred->addWidget(m_empty);
    auto *box = new QWidget;
    auto *layout = new QVBoxLayout(box);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(m_plot, 1);
    m_look = new QComboBox;
    m_look->setObjectName(QStringLiteral("shownLook"));
    m_look->setAccessibleName(tr("Look of the breaks whose curves are shown"));
    m_look->setSizeAdjustPolicy(QComboBox::AdjustToContents);
    connect(m_look, &QComboBox::activated, this,
            [this] { m_presenter.showLook(m_look->currentData().toString()); });
    m_hint = softLabel({});
    auto *below = new QHBoxLayout;
    below->addWidget(m_hint, 1);
    below->addWidget(m_look);
    layout->addLayout(below);
    return box;
}

void ReadView::redraw()
{
    if (m_session.lens() != Lens::Read)
        return;
    dressPlot();
    drawCurves();
    m_hint->setText(m_presenter.hintText());
    offerLooks();
    m_empty->setText(m_presenter.emptyText());
    m_empty->setVisible(!m_empty->text().isEmpty());
    const StudyId study = m_session.study() != nullptr ? m_session.study()->id : StudyId{};
    drawGuides();
    const bool anyDrawn = m_anyCurve || !m_guideCurves.empty();
    if ((m_fitted != study || m_fittedTest != m_session.shownTest()) && anyDrawn) {
        m_fitted = study;
        m_fittedTest = m_session.shownTest();
        showAll();
    }
    drawMarkers();
    m_replot.start();
    m_card->refresh();
}

void ReadView::offerLooks()
{
    const std::vector<LookChoice> choices = m_presenter.lookChoices();
    m_look->clear();
    for (const LookChoice &choice : choices)
        m_look->addItem(choice.text, choice.look);
    m_look->setCurrentIndex(m_look->findData(m_presenter.shownLook()));
    m_look->setVisible(!choices.empty());
}

/// The selected piece's record has come, or a marker was moved: the other curves stay.
void ReadView::redrawDetail()
{
    if (m_session.lens() != Lens::Read)
        return;
    if (!m_presenter.placing().moved()) {
        drawCurves();
        drawGuides();
    }
    drawMarkers();
    m_replot.start();
}

void ReadView::dressPlot()
{
    const Theme &theme = currentTheme();
    m_plot->setBackground(theme.sheet);
    m_plot->setLocale(locale());
    m_plot->xAxis->setLabel(m_presenter.xTitle());
    m_plot->yAxis->setLabel(m_presenter.yTitle());
    for (QCPAxis *axis : {m_plot->xAxis, m_plot->yAxis}) {
        axis->setBasePen(QPen(theme.ink, 1));
        axis->setTickPen(QPen(theme.ink, 1));
        axis->setSubTickPen(QPen(theme.line, 1));
        axis->setTickLabelColor(theme.ink);
        axis->setLabelColor(theme.ink);
        axis->setTickLabelFont(font());
        axis->setLabelFont(font());
        axis->grid()->setPen(QPen(theme.line, 1, Qt::DotLine));
        axis->grid()->setZeroLinePen(QPen(theme.line, 1));
    }
}

void ReadView::drawCurves()
{
    const Theme &theme = currentTheme();
    const std::vector<CurveModel> models = m_presenter.curves();
    const StudyId study = m_session.study() != nullptr ? m_session.study()->id : StudyId{};
    if (m_curvesOf != study) {
        m_curvesOf = study;
        m_plot->clearPlottables();
        m_curves.clear();
        m_guideCurves.clear();
    }
    std::set<PieceId> drawn;
    const double coarseness = std::clamp(static_cast<double>(models.size()) / kFineCurves, 1.0, kCoarsest);
    for (const CurveModel &model : models) {
        const auto known = m_curves.find(model.piece);
        auto *curve =
            known != m_curves.end() ? known->second : new CurvePlottable(m_plot->xAxis, m_plot->yAxis);
        m_curves[model.piece] = curve;
        drawn.insert(model.piece);
        curve->setShape(model.shape);
        QColor ink = railInk(theme, model.railIndex);
        if (model.leftOut)
            ink.setAlphaF(0.35F);
        QPen pen(ink, 1.0);
        if (!railDashes(model.railIndex).isEmpty())
            pen.setDashPattern(railDashes(model.railIndex));
        // What came after the break is drawn for the chosen piece only; the others would fill the picture.
        curve->setPen(model.isSelected ? QPen(theme.accent, 2.4) : pen);
        curve->setTailPen(model.isSelected ? QPen(theme.accent, 1.0, Qt::DotLine) : QPen(Qt::NoPen));
        curve->setCoarseness(model.isSelected ? 1.0 : coarseness);
        curve->setDots(model.isPoints ? (model.isSelected ? 4.0 : 2.5) : 0.0);
        curve->setLayer(model.isSelected ? QStringLiteral("axes") : QStringLiteral("main"));
    }
    // A curve that is read again, or hidden, comes back soon: taking hundreds off the plot takes longer than
    // a frame.
    for (const auto &[piece, curve] : m_curves) {
        if (!drawn.contains(piece))
            curve->setShape(nullptr);
    }
    m_anyCurve = !models.empty();
}

/// Fits and lines of decision of the selected piece; they are behind its record.
void ReadView::drawGuides()
{
    const Theme &theme = currentTheme();
    for (QCPCurve *curve : m_guideCurves)
        m_plot->removePlottable(curve);
    m_guideCurves.clear();
    for (const GuideModel &guide : m_presenter.guides()) {
        auto *curve = new QCPCurve(m_plot->xAxis, m_plot->yAxis);
        QVector<double> x, y;
        for (const QPointF &point : guide.line) {
            x << point.x();
            y << point.y();
        }
        curve->setData(x, y);
        curve->setName(guide.name);
        curve->setPen(guide.isGuide ? QPen(theme.softInk, 1.0, Qt::DashLine) : QPen(theme.accent, 1.0));
        m_guideCurves.push_back(curve);
    }
}

/// The side on which a marker's name is written: its own, unless the name would leave the picture there.
Qt::Alignment ReadView::sideInside(const MarkerModel &marker) const
{
    const QRect room = m_plot->axisRect()->rect();
    const QSize size = fontMetrics().size(Qt::TextSingleLine, marker.name).grownBy(kNamePadding);
    const double x = m_plot->xAxis->coordToPixel(marker.at.x());
    const double y = m_plot->yAxis->coordToPixel(marker.at.y());
    Qt::Alignment across = marker.side & Qt::AlignHorizontal_Mask;
    Qt::Alignment along = marker.side & Qt::AlignVertical_Mask;
    if (x + size.width() > room.right())
        across = Qt::AlignRight;
    else if (x - size.width() < room.left())
        across = Qt::AlignLeft;
    if (y + size.height() > room.bottom())
        along = Qt::AlignBottom;
    else if (y - size.height() < room.top())
        along = Qt::AlignTop;
    return across | along;
}

void ReadView::drawMarkers()
{
    const Theme &theme = currentTheme();
    m_plot->clearItems();
    QStringList meanings;
    const std::vector<MarkerModel> markers = m_presenter.markers();
    for (const MarkerModel &marker : markers) { // names first, so that no dot lies under one
        if (marker.name.isEmpty())
            continue;
        if (!marker.meaning.isEmpty())
            meanings << QStringLiteral("%1: %2%3")
                            .arg(marker.name, marker.meaning,
                                 marker.isByHand ? tr(" Placed by hand.") : QString());
        auto *text = new QCPItemText(m_plot);
        text->position->setCoords(marker.at.x(), marker.at.y());
        text->setText(marker.name);
        text->setFont(font());
        text->setColor(theme.accent);
        QColor behind = theme.sheet;
        behind.setAlphaF(0.75F);
        text->setBrush(behind);
        text->setPositionAlignment(sideInside(marker));
        text->setPadding(kNamePadding);
        text->setClipToAxisRect(false);
    }
    for (const MarkerModel &marker : markers) {
        const bool isHeld = !marker.marker.empty() &&
                            (marker.marker == m_presenter.placing().moved() || marker.marker == m_chosen);
        const double radius = isHeld ? 6.0 : 4.0;
        auto *centre = new QCPItemTracer(m_plot);
        centre->setStyle(QCPItemTracer::tsNone);
        centre->position->setCoords(marker.at.x(), marker.at.y());
        auto *dot = new QCPItemEllipse(m_plot);
        for (QCPItemPosition *corner : {dot->topLeft, dot->bottomRight}) {
            corner->setType(QCPItemPosition::ptAbsolute);
            corner->setParentAnchor(centre->position);
        }
        dot->topLeft->setCoords(-radius, -radius);
        dot->bottomRight->setCoords(radius, radius);
        dot->setPen(QPen(theme.accent, 2));
        dot->setBrush(marker.isByHand ? theme.accent : theme.sheet); // filled: placed by hand
        dot->setClipToAxisRect(true);
    }
    m_plot->setToolTip(meanings.join(QLatin1Char('\n')));
    m_plot->setWhatsThis(m_plot->toolTip());
}

std::optional<QPointF> ReadView::markerPixel(std::string_view marker) const
{
    for (const MarkerModel &model : m_presenter.markers()) {
        if (model.marker == marker)
            return QPointF(m_plot->xAxis->coordToPixel(model.at.x()),
                           m_plot->yAxis->coordToPixel(model.at.y()));
    }
    return std::nullopt;
}

QSize ReadView::plotSize() const
{
    return m_plot->size();
}

QString ReadView::plotText() const
{
    return m_presenter.curvesText();
}

void ReadView::paintPlot(QPainter &painter, QSize size)
{
    // The plotting library paints with a painter of its own class; a picture carries its strokes over as
    // vectors.
    QPicture strokes;
    QCPPainter plotPainter(&strokes);
    plotPainter.setMode(QCPPainter::pmVectorized);
    plotPainter.setMode(QCPPainter::pmNoCaching);
    m_plot->toPainter(&plotPainter, size.width(), size.height());
    plotPainter.end();
    painter.fillRect(QRect(QPoint(0, 0), size), currentTheme().sheet);
    painter.drawPicture(0, 0, strokes);
}

void ReadView::showAll()
{
    m_plot->rescaleAxes();
    for (QCPAxis *axis : {m_plot->xAxis, m_plot->yAxis}) {
        const QCPRange range = axis->range();
        axis->setRange(range.lower - 0.03 * range.size(), range.upper + 0.07 * range.size());
    }
    m_plot->replot(QCustomPlot::rpQueuedReplot);
}

void ReadView::zoom(double factor)
{
    for (QCPAxis *axis : {m_plot->xAxis, m_plot->yAxis})
        axis->scaleRange(factor, axis->range().center());
    m_plot->replot(QCustomPlot::rpQueuedReplot);
}

void ReadView::pan(double shareX, double shareY)
{
    m_plot->xAxis->moveRange(shareX * m_plot->xAxis->range().size());
    m_plot->yAxis->moveRange(shareY * m_plot->yAxis->range().size());
    m_plot->replot(QCustomPlot::rpQueuedReplot);
}

void ReadView::selectAt(QPointF position)
{
    double nearest = kReach;
    PieceId piece;
    for (const auto &[id, curve] : m_curves) {
        const double distance = curve->selectTest(position, false, nullptr);
        if (distance >= 0.0 && distance < nearest) {
            nearest = distance;
            piece = id;
        }
    }
    if (piece != PieceId{})
        m_session.selectPiece(piece);
}

/// Takes hold of a marker under the mouse; true where there is one.
bool ReadView::pressed(QPointF position)
{
    if (!m_presenter.placing().canPlace())
        return false;
    double nearest = kReach;
    for (const MarkerModel &marker : m_presenter.markers()) {
        if (marker.marker.empty())
            continue;
        const QPointF at(m_plot->xAxis->coordToPixel(marker.at.x()),
                         m_plot->yAxis->coordToPixel(marker.at.y()));
        const double distance = QLineF(position, at).length();
        // Of several on one point the one that the keys have chosen is meant, else the last, which lies on
        // top.
        if (distance < nearest || (distance == nearest && m_grabbed != m_chosen)) {
            nearest = distance;
            m_grabbed = marker.marker;
        }
    }
    return !m_grabbed.empty();
}

void ReadView::dragged(QPointF position)
{
    const PlotScale scale{m_plot->xAxis->range().size() / std::max(1, m_plot->axisRect()->width()),
                          m_plot->yAxis->range().size() / std::max(1, m_plot->axisRect()->height())};
    m_presenter.placing().moveTo(
        m_grabbed,
        QPointF(m_plot->xAxis->pixelToCoord(position.x()), m_plot->yAxis->pixelToCoord(position.y())), scale);
}

void ReadView::released()
{
    m_grabbed.clear();
    m_card->markers().askForReason();
}

/// M goes from marker to marker; with one chosen the arrows move it, Enter asks for the reason, Esc lets go.
bool ReadView::markerKey(QKeyEvent &event)
{
    MarkerPresenter &placing = m_presenter.placing();
    if (event.key() == Qt::Key_M) {
        std::vector<std::string> there;
        for (const MarkerRow &row : placing.rows())
            there.push_back(row.marker);
        const auto at = std::find(there.begin(), there.end(), m_chosen);
        if (there.empty() || !placing.canPlace())
            return true;
        m_chosen = at == there.end() || at + 1 == there.end() ? there.front() : *(at + 1);
        drawMarkers();
        m_plot->replot(QCustomPlot::rpQueuedReplot);
        return true;
    }
    if (m_chosen.empty())
        return false;
    const int steps = event.modifiers().testFlag(Qt::ControlModifier) ? kManySteps : 1;
    switch (event.key()) {
    case Qt::Key_Left:
        placing.moveBy(m_chosen, -steps);
        return true;
    case Qt::Key_Right:
        placing.moveBy(m_chosen, steps);
        return true;
    case Qt::Key_Return:
    case Qt::Key_Enter:
        m_card->markers().askForReason();
        return true;
    case Qt::Key_Escape:
        m_chosen.clear();
        placing.drop();
        return true;
    default:
        return false;
    }
}

void ReadView::keyPressEvent(QKeyEvent *event)
{
    if (markerKey(*event))
        return;
    switch (event->key()) {
    case Qt::Key_Plus:
    case Qt::Key_Equal:
        zoom(kZoomStep);
        break;
    case Qt::Key_Minus:
        zoom(1.0 / kZoomStep);
        break;
    case Qt::Key_F:
        showAll();
        break;
    case Qt::Key_Left:
        pan(-kPanStep, 0.0);
        break;
    case Qt::Key_Right:
        pan(kPanStep, 0.0);
        break;
    case Qt::Key_Up:
        pan(0.0, kPanStep);
        break;
    case Qt::Key_Down:
        pan(0.0, -kPanStep);
        break;
    default:
        QWidget::keyPressEvent(event);
    }
}

bool ReadView::eventFilter(QObject *watched, QEvent *event)
{
    if (watched == m_plot && event->type() == QEvent::KeyPress) {
        auto *key = static_cast<QKeyEvent *>(event);
        key->setAccepted(true);
        keyPressEvent(key);
        return key->isAccepted();
    }
    if (watched == m_plot && event->type() == QEvent::MouseButtonPress) {
        const auto *mouse = static_cast<QMouseEvent *>(event);
        if (mouse->button() == Qt::LeftButton && pressed(mouse->position())) {
            m_plot->setFocus(Qt::MouseFocusReason);
            return true;
        }
        selectAt(mouse->position());
    }
    if (watched == m_plot && !m_grabbed.empty() && event->type() == QEvent::MouseMove) {
        dragged(static_cast<QMouseEvent *>(event)->position());
        return true;
    }
    if (watched == m_plot && !m_grabbed.empty() && event->type() == QEvent::MouseButtonRelease) {
        released();
        return true;
    }
    return QWidget::eventFilter(watched, event);
}

void ReadView::changeEvent(QEvent *event)
{
    if (event->type() == QEvent::PaletteChange || event->type() == QEvent::FontChange ||
        event->type() == QEvent::LocaleChange)
        redraw();
    QWidget::changeEvent(event);
}

} // namespace inchpeg::app
