// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/bench/cut_off_records.h"
#include "app/session/project_session.h"
#include "core/logbook/typed_record.h"

#include <QObject>

#include <functional>

namespace inchpeg::app
{

/// Brings what was recorded or typed on the bench into the project as raw data, and makes it the record of
/// its piece.
class BenchKeeper : public QObject
{
    Q_OBJECT
public:
    explicit BenchKeeper(ProjectSession &session, QObject *parent = nullptr);

    /// What else changes about the piece, in the same step.
    using Change = std::function<void(Piece &)>;

    [[nodiscard]] bool isBusy() const { return m_pending > 0; }
    /// The files on the bench go once their bytes are in the project; where they cannot be kept, or read,
    /// notKept() is said and they stay.
    void keepRecord(StudyId study, const CutOffRecord &record, const QString &name);
    /// gauge: what was read, in a word or two. False, with a sentence told, for what is no such value.
    bool keepTyped(PieceId piece, const std::vector<TypedRow> &rows, const std::string &gauge,
                   const QString &step, Change change = {});

signals:
    /// Also where it could not be kept: isLinked tells.
    void kept(inchpeg::PieceId piece, bool isLinked);
    /// A record that is still to be kept: nothing of it is lost.
    void notKept(const inchpeg::app::CutOffRecord &record);
    void told(const QString &sentence);

private:
    /// What is on its way, and what becomes of it.
    struct Order {
        StudyId study;
        PieceId piece;
        std::string name;
        std::shared_ptr<const std::string> bytes;
        std::optional<CutOffRecord> record; ///< from the bench; nothing: it was typed
        QString step;
        Change change;
    };
    void start(Order order);
    void link(const Order &order, const KeptRawFiles &stored);

    ProjectSession &m_session;
    int m_pending = 0; ///< that are on their way, one after the other
};

} // namespace inchpeg::app
