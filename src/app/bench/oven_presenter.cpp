// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench/oven_presenter.h"

#include "core/planning/plan_edit.h"
#include "core/reading/reading_settings.h"
#include "core/units/number.h"

#include <QDateTime>

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg::app
{

namespace
{

constexpr double kOtherRate = 0.1; ///< a share by which a rate is another one

} // namespace

OvenPresenter::OvenPresenter(ProjectSession &session, BenchKeeper &keeper, QObject *parent)
    : QObject(parent), m_session(session), m_keeper(keeper)
{
    const auto forget = [this] {
        m_inside.clear();
        m_trace.clear();
        m_typed_C.reset();
    };
    connect(&session, &ProjectSession::projectChanged, this, forget);
}

void OvenPresenter::setWaiting(const std::vector<PieceId> &waiting)
{
    m_waiting = waiting;
    const Study *study = m_session.study();
    std::erase_if(m_inside, [study](PieceId id) {
        const Piece *piece = study == nullptr ? nullptr : findPiece(*study, id);
        return piece == nullptr || !isFor(piece->test) || piece->exclusion;
    });
    if (m_inside.empty())
        beginNext();
}

bool OvenPresenter::canBeginNext() const
{
    const Study *study = m_session.study();
    return !m_waiting.empty() && std::all_of(m_inside.begin(), m_inside.end(), [&](PieceId id) {
        return findPiece(*study, id) == nullptr || findPiece(*study, id)->recording;
    });
}

void OvenPresenter::beginNext()
{
    m_inside.assign(m_waiting.begin(),
                    m_waiting.begin() + static_cast<std::ptrdiff_t>(std::min(kMostPieces, m_waiting.size())));
}

std::vector<OvenPresenter::Place> OvenPresenter::places() const
{
    std::vector<Place> places;
    if (m_session.study() == nullptr)
        return places;
    const Study &study = *m_session.study();
    for (std::size_t i = 0; i < m_inside.size(); ++i) {
        const Piece *piece = findPiece(study, m_inside[i]);
        if (piece == nullptr)
            continue;
        Place place;
        place.piece = piece->id;
        place.key = QChar(u'A' + static_cast<char16_t>(i));
        place.code = QString::fromStdString(piece->code);
        place.rail = QString::fromStdString(railTitle(study, *findCondition(study, piece->condition)));
        const PieceReading *reading = readingOf(m_session.readings(), piece->id);
        const ReadValue *value =
            reading == nullptr ? nullptr : valueOf(reading->result.values, "softening_temperature");
        if (value != nullptr)
            place.sag = shown(value->number);
        else if (piece->recording)
            place.sag = tr("stamped");
        places.push_back(place);
    }
    return places;
}

void OvenPresenter::show(double t_s, double temperature_C)
{
    m_trace.add(t_s, temperature_C);
    m_typed_C.reset();
}

bool OvenPresenter::typeTemperature(const QString &text)
{
    const Result<double> value =
        parseQuantity(text.simplified().toStdString(), m_session.notation().unitOf(Dimension::Temperature));
    if (!m_session.tell(value ? ok() : Status(value.error())))
        return false;
    m_typed_C = *value;
    emit changed();
    return true;
}

std::optional<double> OvenPresenter::temperature_C() const
{
    return m_typed_C ? m_typed_C : m_trace.latest_C();
}

QString OvenPresenter::shown(double temperature_C) const
{
    const Unit unit = m_session.notation().unitOf(Dimension::Temperature);
    return QString::fromStdString(m_session.notation().fixed(unit.fromWorking(temperature_C), 1)) +
           QLatin1Char(' ') + QString::fromUtf8(unit.symbol.data(), qsizetype(unit.symbol.size()));
}

QString OvenPresenter::temperatureText() const
{
    const std::optional<double> temperature = temperature_C();
    return temperature ? shown(*temperature) : QStringLiteral("–");
}

std::optional<double> OvenPresenter::lag_s() const
{
    const Study *study = m_session.study();
    return study == nullptr ? std::nullopt : testSettings(*study, Method::Softening).number("lag");
}

QString OvenPresenter::rateText() const
{
    const std::optional<double> rate = m_trace.rate_K_per_h();
    if (m_typed_C)
        return tr("as it was typed");
    if (!rate)
        return tr("the heating rate is known after a minute of readings");
    const Notation &notation = m_session.notation();
    QString text =
        tr("heated at %1").arg(QString::fromStdString(notation.quantity(*rate, Dimension::HeatingRate, 3)));
    if (const std::optional<double> lag = lag_s(); lag && *lag > 0.0)
        text += tr("; the probe is %1 s late: %2 K less")
                    .arg(*lag, 0, 'f', 0)
                    .arg(QString::fromStdString(notation.significant(*rate * *lag / kSecondsPerHour, 2)));
    return text;
}

QString OvenPresenter::nextAction() const
{
    if (m_inside.empty())
        return tr("Every piece of this test has its record.");
    if (canBeginNext())
        return tr("All have sagged. Let the oven cool, put the next ones in, and press Enter.");
    if (!temperature_C())
        return tr("Connect the oven's logger, or type what its thermometer shows.");
    return tr("Heat it. The key of a piece stamps its first sag.");
}

/// A first sag that is seen needs none, a record that follows does: the usual one stands where none was said.
void OvenPresenter::keepThreshold(Method method)
{
    constexpr std::string_view kName = "threshold";
    const Parameter *threshold = findParameter(reductionOf(method)->parameters, kName);
    if (threshold == nullptr || testSettings(*m_session.study(), method).number(kName))
        return;
    m_session.tryEdit(tr("threshold"),
                      [&](Study &study) { return setTestParameter(study, method, kName, threshold->usual); });
}

/// How fast it is being heated stands in the test's settings: a single temperature does not tell it, and the
/// lag of the probe is taken back by it.
void OvenPresenter::keepRate(Method method)
{
    const std::optional<double> rate = m_trace.rate_K_per_h();
    if (!rate || !(*rate > 0.0) || !lag_s())
        return;
    const std::optional<double> before = testSettings(*m_session.study(), method).number("heating_rate");
    if (before && std::abs(*before - *rate) <= kOtherRate * *before)
        return;
    if (before)
        emit told(tr("This run is heated at %1 K/h, the one before at %2: their temperatures may not be put "
                     "beside each other.")
                      .arg(*rate, 0, 'f', 0)
                      .arg(*before, 0, 'f', 0));
    m_session.tryEdit(tr("heating rate"), [&](Study &study) {
        return setTestParameter(study, method, "heating_rate", fmt::format("{:.1f} K/h", *rate));
    });
}

bool OvenPresenter::stamp(QChar key)
{
    const int place = key.toUpper().unicode() - u'A';
    if (place < 0 || place >= static_cast<int>(m_inside.size()))
        return false;
    const PieceId id = m_inside[static_cast<std::size_t>(place)];
    const Piece *piece = findPiece(*m_session.study(), id);
    if (piece == nullptr)
        return false;
    const std::optional<double> temperature = temperature_C();
    if (piece->recording) {
        emit told(
            tr("%1 is stamped already; Ctrl+Z takes it back.").arg(QString::fromStdString(piece->code)));
        return false;
    }
    if (!temperature)
        return m_session.tell(invalidArgument(
            "no temperature is known: connect the oven's logger, or type what its thermometer shows"));
    TypedRow row;
    row.takenAt = m_session.now();
    for (const TypedColumn &column : typedColumns(*reductionOf(piece->test)))
        row.cells.push_back(column.name == "temperature" ? fmt::format("{:.2f} °C", *temperature)
                                                         : std::string());
    keepThreshold(piece->test);
    keepRate(piece->test);
    const bool isKept =
        m_keeper.keepTyped(id, {row}, m_typed_C ? "thermometer, typed" : "thermometer, stamped",
                           tr("first sag of %1").arg(QString::fromStdString(piece->code)));
    emit changed();
    return isKept;
}

} // namespace inchpeg::app
